namespace InkyBadger.Core.Design;

/// <summary>An empty design: one bank with an inverter, everything as advised.</summary>
public static class NewDesign
{
    public static DesignDocument Empty(string name) =>
        new()
        {
            Name = name,
            Banks =
            [
                new()
                {
                    Id = "b1",
                    Name = "House bank",
                    Inverters = [new() { Id = "i1" }],
                    Runs = [Run.AdvisedMain],
                },
            ],
        };
}
