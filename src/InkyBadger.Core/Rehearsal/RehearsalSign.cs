using System.Security.Cryptography;
using System.Text.Json;
using InkyBadger.Core.Design;

namespace InkyBadger.Core.Rehearsal;

/// <summary>
/// The sign of all that a bank’s year follows from: two designs of one sign have the same year, so what one was taught holds for the
/// other.
/// </summary>
public static class RehearsalSign
{
    /// <param name="bankIndex">From 0.</param>
    public static string Of(DesignDocument design, int bankIndex)
    {
        // Words, money, whose it is and how far it is built change no year.
        var counts = design with
        {
            Name = "",
            Notes = "",
            Demo = false,
            Display = new(),
            CyclesPerYear = null,
            Years = null,
            Prices = new(),
            Decisions = [],
            Ledger = [],
            BringUp = new(),
        };
        var hash = SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(counts, DesignFormat.Options));
        return $"{bankIndex}-{Convert.ToHexStringLower(hash.AsSpan(0, 12))}";
    }
}
