using InkyBadger.Core.Design;
using InkyBadger.Core.Reference;

namespace InkyBadger.Core.Work;

/// <summary>Tables of one's own: whether they can be reckoned with.</summary>
internal static class OwnTablesCheck
{
    public static void Faults(OwnTables own, List<DesignFault> faults)
    {
        const string at = "/tables";
        Names(own.Practices.Select(p => p.Id), $"{at}/practices", faults);
        Names(own.Fuses.Select(f => f.Id), $"{at}/fuses", faults);
        foreach (var (i, size) in own.Conductors.Index())
            if (Conductors.Has(size.Size))
                faults.Add(new($"{at}/conductors/{i}/size", $"“{size.Size}” is in the typical table already"));
        if (own.Conductors.DistinctBy(c => c.Size).Count() < own.Conductors.Count)
            faults.Add(new($"{at}/conductors", "each size once"));
        var sizes = own.Conductors.Select(c => c.Size).ToHashSet();
        bool Has(string size) => sizes.Contains(size) || Conductors.Has(size);
        foreach (var (i, practice) in own.Practices.Index())
        {
            var place = $"{at}/practices/{i}";
            if (practice.ReferenceC >= practice.InsulationC)
                faults.Add(new($"{place}/referenceC", "must be below what the insulation bears"));
            if (practice.Rows.FirstOrDefault(r => !Has(r.Size)) is { } unknown)
                faults.Add(new($"{place}/rows", $"“{unknown.Size}” is in no table of conductors"));
            if (practice.Rows.DistinctBy(r => r.Size).Count() < practice.Rows.Count)
                faults.Add(new($"{place}/rows", "each size once"));
        }
        foreach (var (i, fuse) in own.Fuses.Index())
        {
            var place = $"{at}/fuses/{i}";
            for (var r = 1; r < fuse.RatingsA.Count; r++)
                if (fuse.RatingsA[r] <= fuse.RatingsA[r - 1])
                    faults.Add(new($"{place}/ratingsA/{r}", "ratings must rise"));
            for (var p = 0; p < fuse.Curve.Count; p++)
            {
                var point = fuse.Curve[p];
                if (point.LeastS > point.MostS)
                    faults.Add(new($"{place}/curve/{p}", "opens at the least before it opens at the most"));
                if (p > 0 && point.Multiple <= fuse.Curve[p - 1].Multiple)
                    faults.Add(new($"{place}/curve/{p}/multiple", "multiples must rise"));
                if (p > 0 && (point.LeastS > fuse.Curve[p - 1].LeastS || point.MostS > fuse.Curve[p - 1].MostS))
                    faults.Add(new($"{place}/curve/{p}", "a greater current never takes longer"));
            }
        }
        if (own.Practice is { } stands && !CablePractices.Has(stands) && !own.Practices.Any(p => p.Id == stands))
            faults.Add(new($"{at}/practice", "is not a practice of any table"));
        foreach (var (i, piece) in own.Drawer.Index())
            if (!Has(piece.Size))
                faults.Add(new($"{at}/drawer/{i}/size", "is in no table of conductors"));
    }

    private static void Names(IEnumerable<string> ids, string at, List<DesignFault> faults)
    {
        var seen = new HashSet<string>();
        foreach (var (i, id) in ids.Index())
            if (!id.StartsWith(OwnTables.Prefix, StringComparison.Ordinal) || id.Length == OwnTables.Prefix.Length)
                faults.Add(new($"{at}/{i}/id", $"begins with “{OwnTables.Prefix}” and a name"));
            else if (!seen.Add(id))
                faults.Add(new($"{at}/{i}/id", $"“{id}” stands twice"));
    }
}
