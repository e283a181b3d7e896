using System.Net;
using System.Net.NetworkInformation;
using System.Net.Sockets;
using System.Security.Cryptography;

namespace InkyBadger.Server.Hosting;

/// <summary>A key typed or carried by the link that was printed.</summary>
public sealed record KeyRequest(string Key);

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

    public string Key => key;

    private static string NewKey() => RandomNumberGenerator.GetString("ABCDEFGHJKLMNPQRSTUVWXYZ23456789", 8);

    /// <summary>The first private IPv4 address of this machine; null when it has none.</summary>
    public static IPAddress? PrivateAddress() => NetworkInterface.GetAllNetworkInterfaces()
        .Where(i => i.OperationalStatus == OperationalStatus.Up)
        .SelectMany(i => i.GetIPProperties().UnicastAddresses)
        .Select(a => a.Address)
        .FirstOrDefault(a => a.AddressFamily == AddressFamily.InterNetwork && IsPrivate(a));

    private static bool IsPrivate(IPAddress a)
    {
        var b = a.GetAddressBytes();
        return b[0] == 10 || b[0] == 172 && b[1] is >= 16 and <= 31 || b[0] == 192 && b[1] == 168;
    }

    public void Use(WebApplication app)
    {
        app.Use((context, next) =>
        {
            var asksData = context.Request.Path.StartsWithSegments("/api") || context.Request.Path.StartsWithSegments("/openapi");
            if (!address.Equals(context.Connection.LocalIpAddress?.MapToIPv4()) || !asksData || context.Request.Path == "/api/key" || Knows(context)) return next();
            return Results.Problem(statusCode: StatusCodes.Status401Unauthorized, title: "This device is not known yet", detail: "Give the key that Inky Badger printed when it started.").ExecuteAsync(context);
        });
        app.MapPost("/api/key", Exchange).WithTags("devices").WithSummary("Exchange the printed key for a cookie; a key works once").Produces(204).ProducesProblem(403).ProducesProblem(429);
    }

    private bool Knows(HttpContext context)
    {
        lock (gate) return context.Request.Cookies.TryGetValue(Cookie, out var token) && devices.Contains(token);
    }

    private IResult Exchange(KeyRequest given, HttpContext context)
    {
        lock (gate)
        {
            if (tries >= MostTries) return Results.Problem(statusCode: StatusCodes.Status429TooManyRequests, title: "Too many wrong keys", detail: "Stop Inky Badger and start it again for a new key.");
            if (!CryptographicOperations.FixedTimeEquals(System.Text.Encoding.UTF8.GetBytes(given.Key.Trim().ToUpperInvariant()), System.Text.Encoding.UTF8.GetBytes(key)))
            {
                tries++;
                return Results.Problem(statusCode: StatusCodes.Status403Forbidden, title: "That key does not open it", detail: "Look at the newest key Inky Badger printed; each works once.");
            }
            tries = 0;
            var token = Convert.ToHexString(RandomNumberGenerator.GetBytes(24));
            devices.Add(token);
            key = NewKey();
            context.Response.Cookies.Append(Cookie, token, new() { HttpOnly = true, SameSite = SameSiteMode.Strict, MaxAge = TimeSpan.FromDays(30) });
        }
        announce("A device was let in. The key for the next one: " + key);
        return Results.NoContent();
    }
}
