using FsCheck.Xunit;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>Laws over generated inputs: as many of them as INKY_LAWS says, forty where it says nothing.</summary>
// The base takes no place in the source, and a class has none to tell.
#pragma warning disable xUnit3003
[AttributeUsage(AttributeTargets.Class)]
public sealed class LawsAttribute : PropertiesAttribute
{
    public static int Count { get; } = int.TryParse(Environment.GetEnvironmentVariable("INKY_LAWS"), out var n) && n > 0 ? n : 40;

    public LawsAttribute(Type of)
    {
        Arbitrary = [of];
        MaxTest = Count;
    }
}
