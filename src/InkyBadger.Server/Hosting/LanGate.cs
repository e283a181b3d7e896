using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;
using System.Security.Cryptography;

namespace InkyBadger.Server.Hosting;

/// <summary>A key typed or carried by the link that was printed.</summary>
public sealed record KeyRequest(string? Key);

/// <summary>
/// Lets devices of the private network in, such as a phone in the van: a key printed on the console works once and is exchanged for a
/// cookie. What arrives on loopback needs none.
/// </summary>
public sealed class LanGate(IPAddress address, Action<string> announce)
{
    private const string Cookie = "inky-badger-device";
    private const int MostTries = 10;

    private readonly Lock gate = new();
    private readonly HashSet<string> devices = [];
    private string key = NewKey();
    private int tries;

    public IPAddress Address => address;

    /// <summary>The address as it stands in a link.</summary>
    public string Host => address.AddressFamily == AddressFamily.InterNetworkV6 ? $"[{address}]" : address.ToString();

    public string Key => key;

    private static string NewKey() => RandomNumberGenerator.GetString("ABCDEFGHJKLMNPQRSTUVWXYZ23456789", 8);

    /// <summary>The first private IPv4 address of this machine; null when it has none.</summary>
    public static IPAddress? PrivateAddress() =>
        NetworkInterface
            .GetAllNetworkInterfaces()
            .Where(i => i.OperationalStatus == OperationalStatus.Up)
            .SelectMany(i => i.GetIPProperties().UnicastAddresses)
            .Select(a => a.Address)
            .FirstOrDefault(a => a.AddressFamily == AddressFamily.InterNetwork && IsPrivate(a));

    private static bool IsPrivate(IPAddress a)
    {
        if (a.AddressFamily == AddressFamily.InterNetworkV6)
            return a.IsIPv6UniqueLocal;
        var b = a.GetAddressBytes();
        return b[0] == 10 || b[0] == 172 && b[1] is >= 16 and <= 31 || b[0] == 192 && b[1] == 168;
    }

    /// <summary>Why no device could or should come in by this address, in a sentence; null when one may.</summary>
    public static string? FaultOf(IPAddress address)
    {
        if (address.Equals(IPAddress.Any) || address.Equals(IPAddress.IPv6Any))
            return $"{address} stands for every address, and --lan needs one of the private network.";
        if (address.Equals(IPAddress.Loopback) || address.Equals(IPAddress.IPv6Loopback))
            return $"{address} is this machine’s own loopback address, which no other device reaches.";
        // The rest of the loopback range reaches nobody either, and stands for a network where there is none.
        if (IPAddress.IsLoopback(address))
            return null;
        if (!IsPrivate(address))
            return $"{address} is not an address of a private network (10…, 172.16… to 172.31…, 192.168…, fd…).";
        return NetworkInterface
            .GetAllNetworkInterfaces()
            .SelectMany(i => i.GetIPProperties().UnicastAddresses)
            .Any(a => a.Address.Equals(address))
            ? null
            : $"{address} is not an address of this machine.";
    }

    /// <summary>
    /// What came in on the loopback address alone is this machine itself; everything else is a device, whatever it was bound to.
    /// </summary>
    private static bool IsThisMachine(HttpContext context) =>
        context.Connection.LocalIpAddress is { } local
        && (local.IsIPv4MappedToIPv6 ? local.MapToIPv4() : local) is var plain
        && (plain.Equals(IPAddress.Loopback) || plain.Equals(IPAddress.IPv6Loopback));

    public void Use(WebApplication app)
    {
        app.Use(
            (context, next) =>
            {
                if (Admits(context))
                    return next();
                return Results
                    .Problem(
                        statusCode: StatusCodes.Status401Unauthorized,
                        title: "This device is not known yet",
                        detail: "Give the newest key that Inky Badger printed. What you typed waits on this device meanwhile."
                    )
                    .ExecuteAsync(context);
            }
        );
        app.MapPost("/api/key", Exchange)
            .WithTags("devices")
            .WithSummary("Exchange the printed key for a cookie; a key works once")
            .Produces(204)
            .ProducesProblem(403)
            .ProducesProblem(429);
    }

    /// <summary>
    /// The page itself and the place to give the key are there for everybody; data for this machine and for devices that gave it.
    /// </summary>
    internal bool Admits(HttpContext context)
    {
        var asksData = context.Request.Path.StartsWithSegments("/api") || context.Request.Path.StartsWithSegments("/openapi");
        return !asksData || context.Request.Path == "/api/key" || IsThisMachine(context) || Knows(context);
    }

    private bool Knows(HttpContext context)
    {
        lock (gate)
            return context.Request.Cookies.TryGetValue(Cookie, out var token) && devices.Contains(token);
    }

    private IResult Exchange(KeyRequest given, HttpContext context)
    {
        if (given.Key is null)
            return Results.Problem(statusCode: StatusCodes.Status400BadRequest, title: "No key", detail: "Send the key as “key”.");
        lock (gate)
        {
            if (tries >= MostTries)
                return Results.Problem(
                    statusCode: StatusCodes.Status429TooManyRequests,
                    title: "Too many wrong keys",
                    detail: "Stop Inky Badger and start it again for a new key."
                );
            if (
                !CryptographicOperations.FixedTimeEquals(
                    System.Text.Encoding.UTF8.GetBytes(given.Key.Trim().ToUpperInvariant()),
                    System.Text.Encoding.UTF8.GetBytes(key)
                )
            )
            {
                tries++;
                return Results.Problem(
                    statusCode: StatusCodes.Status403Forbidden,
                    title: "That key does not open it",
                    detail: "Look at the newest key Inky Badger printed; each works once."
                );
            }
            tries = 0;
            var token = Convert.ToHexString(RandomNumberGenerator.GetBytes(24));
            devices.Add(token);
            key = NewKey();
            context.Response.Cookies.Append(
                Cookie,
                token,
                new()
                {
                    HttpOnly = true,
                    SameSite = SameSiteMode.Strict,
                    MaxAge = TimeSpan.FromDays(30),
                }
            );
        }
        announce("A device was let in. The key for the next one: " + key);
        return Results.NoContent();
    }
}
