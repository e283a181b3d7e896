namespace InkyBadger.Core.Reference;

/// <summary>How tight a lug sits on a stud or post, table <c>torque</c>: typical values, the maker’s first.</summary>
public static class Torques
{
    private static readonly Dictionary<string, double> ByStud = TableFile
        .Read("torque", r => (Stud: r.Text("stud"), Nm: r.Num("newton_metres")))
        .ToDictionary(r => r.Stud, r => r.Nm);

    /// <summary>Typical for a stud such as <c>M8</c> [N m]; null: the table has none for it.</summary>
    public static double? TypicalNm(string stud) => ByStud.TryGetValue(stud, out var nm) ? nm : null;
}
