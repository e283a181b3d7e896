using System.Buffers.Text;
using System.Text;

namespace InkyBadger.Core.Rehearsal;

/// <summary>A string between two days: its charge [0 to 1], whether and why it is out, and since when [s].</summary>
public readonly record struct StringState(double Soc, byte State, double OutAtS);

/// <summary>
/// A run between two days. It goes on from here to the last digit as if it had never stopped, so that a fortnight is run again without the
/// year before it.
/// </summary>
/// <param name="Day">That comes next (from 0).</param>
/// <param name="AboveS">How long more than each of the inverter’s levels has been asked [s].</param>
public sealed record RehearsalState(
    int Day,
    IReadOnlyList<StringState> Strings,
    IReadOnlyList<double> AboveS,
    bool InverterOn,
    double InverterOffAtS,
    bool GeneratorOn,
    bool Blackout
)
{
    /// <summary>As text without blanks, to be given back unread.</summary>
    public string Write()
    {
        using var bytes = new MemoryStream();
        using var to = new BinaryWriter(bytes, Encoding.UTF8);
        to.Write(Day);
        to.Write((byte)Strings.Count);
        foreach (var s in Strings)
        {
            to.Write(s.Soc);
            to.Write(s.State);
            to.Write(s.OutAtS);
        }
        to.Write((byte)AboveS.Count);
        foreach (var s in AboveS)
            to.Write(s);
        to.Write(InverterOn);
        to.Write(InverterOffAtS);
        to.Write(GeneratorOn);
        to.Write(Blackout);
        to.Flush();
        return Base64Url.EncodeToString(bytes.ToArray());
    }

    /// <summary>From what <see cref="Write"/> wrote; null: it is none.</summary>
    public static RehearsalState? Read(string text)
    {
        try
        {
            using var from = new BinaryReader(new MemoryStream(Base64Url.DecodeFromChars(text)), Encoding.UTF8);
            var day = from.ReadInt32();
            var strings = new StringState[from.ReadByte()];
            for (var i = 0; i < strings.Length; i++)
                strings[i] = new(from.ReadDouble(), from.ReadByte(), from.ReadDouble());
            var above = new double[from.ReadByte()];
            for (var i = 0; i < above.Length; i++)
                above[i] = from.ReadDouble();
            var state = new RehearsalState(
                day,
                strings,
                above,
                from.ReadBoolean(),
                from.ReadDouble(),
                from.ReadBoolean(),
                from.ReadBoolean()
            );
            return from.BaseStream.Position == from.BaseStream.Length ? state : null;
        }
        catch (Exception e) when (e is FormatException or EndOfStreamException)
        {
            return null;
        }
    }
}
