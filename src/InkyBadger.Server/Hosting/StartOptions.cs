using System.Net;

namespace InkyBadger.Server.Hosting;

/// <summary>What the command line asks for.</summary>
public sealed record StartOptions(string DataFolder, int Port, bool Seed, string WebFolder)
{
    public const int DefaultPort = 8742;

    /// <summary>Whether devices of the private network are let in too.</summary>
    public bool Lan { get; init; }

    /// <summary>The private address to listen on; null: the machine's first.</summary>
    public IPAddress? LanAddress { get; init; }

    /// <summary>Where to write a copy of the database instead of starting; null: start.</summary>
    public string? BackupTo { get; init; }

    /// <summary>A backup to put in place of the database instead of starting; null: start.</summary>
    public string? RestoreFrom { get; init; }

    /// <summary>Files of designs to be checked instead of starting; none: start.</summary>
    public IReadOnlyList<string> Check { get; init; } = [];

    /// <summary>Whether a check is told as JSON.</summary>
    public bool Json { get; init; }

    public string Logs => Path.Combine(DataFolder, "logs");

    /// <exception cref="ArgumentException">Says in one sentence what is wrong with the command line.</exception>
    public static StartOptions Parse(string[] args)
    {
        var options = new StartOptions(
            Path.Combine(
                Environment.GetFolderPath(Environment.SpecialFolder.LocalApplicationData, Environment.SpecialFolderOption.DoNotVerify),
                "inky-badger"
            ),
            DefaultPort,
            true,
            Path.Combine(AppContext.BaseDirectory, "web")
        );
        for (var i = 0; i < args.Length; i++)
        {
            string Value() => i + 1 < args.Length ? args[++i] : throw new ArgumentException($"{args[i]} needs a value.");
            options = args[i] switch
            {
                "--data" => options with { DataFolder = Path.GetFullPath(Value()) },
                "--web" => options with { WebFolder = Path.GetFullPath(Value()) },
                "--empty" => options with { Seed = false },
                "--port" => int.TryParse(Value(), out var port) && port is >= 0 and <= 65535
                    ? options with
                    {
                        Port = port,
                    }
                    : throw new ArgumentException("--port must be a number from 0 to 65535."),
                "--lan" => options with { Lan = true },
                "--lan-address" => IPAddress.TryParse(Value(), out var address)
                    ? options with
                    {
                        Lan = true,
                        LanAddress = address.IsIPv4MappedToIPv6 ? address.MapToIPv4() : address,
                    }
                    : throw new ArgumentException("--lan-address must be an address of this machine, such as 192.168.1.20."),
                "--backup" => options with { BackupTo = Path.GetFullPath(Value()) },
                "--restore" => options with { RestoreFrom = Path.GetFullPath(Value()) },
                "--check" => options with { Check = [Path.GetFullPath(Value())] },
                "--json" => options with { Json = true },
                // What follows the first file of a check are further ones.
                var file when options.Check.Count > 0 && !file.StartsWith('-') => options with
                {
                    Check = [.. options.Check, Path.GetFullPath(file)],
                },
                _ => throw new ArgumentException($"{args[i]} is not an option. ./run --help tells them."),
            };
        }
        return options;
    }
}
