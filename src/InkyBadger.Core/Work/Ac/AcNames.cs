using InkyBadger.Core.Design;

namespace InkyBadger.Core.Work;

/// <summary>Parts of the AC side in words.</summary>
public static class AcNames
{
    public static string NameOf(AcPart part) =>
        part.Name.Length > 0
            ? part.Name
            : part.Kind switch
            {
                AcPartKind.Plug => "plug",
                AcPartKind.Transfer => "transfer switch",
                _ => part.Kind.ToString().ToLowerInvariant(),
            };
}
