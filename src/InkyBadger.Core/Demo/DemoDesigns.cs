using InkyBadger.Core.Design;

namespace InkyBadger.Core.Demo;

/// <summary>The invented designs that ship with the application; the first is the one it opens with.</summary>
public static class DemoDesigns
{
    private static readonly string[] Names = ["marrow-lane", "hares-ledge", "pell-street", "tern-yard"];

    public static IReadOnlyList<DesignDocument> All { get; } = [.. Names.Select(Read)];

    private static DesignDocument Read(string name)
    {
        using var stream = typeof(DemoDesigns).Assembly.GetManifestResourceStream($"demo/{name}.json")
            ?? throw new InvalidOperationException($"demo design {name} is not embedded");
        using var reader = new StreamReader(stream);
        return DesignFormat.Read(reader.ReadToEnd());
    }
}
