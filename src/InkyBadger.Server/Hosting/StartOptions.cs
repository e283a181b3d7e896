namespace InkyBadger.Server.Hosting;

/// <summary>What the command line asks for.</summary>
public sealed record StartOptions(string DataFolder, int Port, bool Seed, string WebFolder)
{
    public const int DefaultPort = 8742;

    /// <exception cref="ArgumentException">Says in one sentence what is wrong with the command line.</exception>
    public static StartOptions Parse(string[] args)
    {
        var data = Path.Combine(Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData, Environment.SpecialFolderOption.DoNotVerify), "inky-badger");
        var port = DefaultPort;
        var seed = true;
        var web = Path.Combine(AppContext.BaseDirectory, "web");
        for (var i = 0; i < args.Length; i++)
        {
            string Value() => i + 1 < args.Length ? args[++i] : throw new ArgumentException($"{args[i]} needs a value.");
            switch (args[i])
            {
                case "--data": data = Path.GetFullPath(Value()); break;
                case "--web": web = Path.GetFullPath(Value()); break;
                case "--empty": seed = false; break;
                case "--port":
                    if (!int.TryParse(Value(), out port) || port is < 0 or > 65535) throw new ArgumentException("--port must be a number from 0 to 65535.");
                    break;
                default: throw new ArgumentException($"{args[i]} is not an option. ./run --help tells them.");
            }
        }
        return new(data, port, seed, web);
    }
}
