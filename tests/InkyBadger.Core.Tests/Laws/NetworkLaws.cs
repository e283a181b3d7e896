using FsCheck;
using FsCheck.Fluent;
using FsCheck.Xunit;
using InkyBadger.Core.Network;
using InkyBadger.Core.Reference;
using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>A bank on rails: strings, links on both rails, a load.</summary>
public sealed record Ladder(double[] Strings, double[] Emf, double[] Positive, double[] Negative, double LoadA)
{
    public override string ToString() =>
        $"R [{string.Join(" ", Strings)}] E [{string.Join(" ", Emf)}] p [{string.Join(" ", Positive)}] n "
        + $"[{string.Join(" ", Negative)}] I {LoadA}";
}

public static class Ladders
{
    public static Arbitrary<Ladder> Any()
    {
        var gen =
            from p in Gen.Choose(1, 32)
            from strings in Gen.ArrayOf(Gen.Choose(1, 2000).Select(i => i / 100_000.0), p)
            from emf in Gen.ArrayOf(Gen.Choose(2400, 2720).Select(i => i / 100.0), p)
            from positive in Gen.ArrayOf(Gen.Choose(0, 100).Select(i => i / 100_000.0), p - 1)
            from negative in Gen.ArrayOf(Gen.Choose(0, 100).Select(i => i / 100_000.0), p - 1)
            from load in Gen.Choose(-500, 2000)
            select new Ladder(strings, emf, positive, negative, load);
        return gen.ToArbitrary();
    }
}

/// <summary>What Kirchhoff and common sense say of every bank.</summary>
[Laws(typeof(Ladders))]
public class NetworkLaws
{
    [Property]
    public void String_currents_add_up_to_the_banks(Ladder l)
    {
        foreach (var diagonal in new[] { false, true })
        {
            var shared = BankSharing.Share(BankNetwork.OnRails(l.Strings, l.Positive, l.Negative, diagonal), l.Emf, l.LoadA);
            Assert.True(Math.Abs(shared.StringCurrentsA.Sum() - l.LoadA) <= 1e-9 * Math.Max(1, shared.StringCurrentsA.Max(Math.Abs)));
        }
    }

    /// <summary>Round every mesh between neighbours the volts come to nothing.</summary>
    [Property]
    public void Volts_round_every_mesh_are_nothing(Ladder l)
    {
        var network = BankNetwork.OnRails(l.Strings, l.Positive, l.Negative, true);
        var currents = BankSharing.Share(network, l.Emf, l.LoadA).StringCurrentsA;
        for (var i = 0; i < l.Strings.Length - 1; i++)
        {
            var (p, n) = network.LinkCurrents(currents, l.LoadA, i + 1);
            var round =
                l.Emf[i]
                - l.Strings[i] * currents[i]
                - p * l.Positive[i]
                - (l.Emf[i + 1] - l.Strings[i + 1] * currents[i + 1])
                - n * l.Negative[i];
            Assert.True(Math.Abs(round) < 1e-8, $"mesh {i + 1}: {round} V");
        }
    }

    [Property]
    public void Renumbering_end_for_end_mirrors_the_answer(Ladder l)
    {
        var last = l.Strings.Length;
        var there = BankSharing.Share(BankNetwork.OnRails(l.Strings, l.Positive, l.Negative, 1, last), l.Emf, l.LoadA);
        var back = BankSharing.Share(
            BankNetwork.OnRails(Mirror(l.Strings), Mirror(l.Positive), Mirror(l.Negative), last, 1),
            Mirror(l.Emf),
            l.LoadA
        );
        Assert.Equal(there.StringCurrentsA, Mirror(back.StringCurrentsA), (a, b) => Math.Abs(a - b) < 1e-7 * Math.Max(1, Math.Abs(a)));
        Assert.Equal(there.TerminalV, back.TerminalV, 7);
    }

    [Property]
    public void Diagonal_is_never_worse_than_same_end_for_equal_strings(Ladder l)
    {
        var strings = Array.ConvertAll(l.Strings, _ => l.Strings[0]);
        var links = Array.ConvertAll(l.Positive, _ => l.Positive[0]);
        double Worst(bool diagonal)
        {
            var shares = new double[strings.Length];
            BankNetwork.OnRails(strings, links, links, diagonal).Shares(shares);
            return shares.Max();
        }
        Assert.True(Worst(true) <= Worst(false) * (1 + 1e-9));
    }

    [Property]
    public void A_string_more_never_lowers_the_short_circuit_current(Ladder l)
    {
        if (l.Strings.Length < 2)
            return;
        var all = BankNetwork.OnBusBars(l.Strings, new double[l.Strings.Length], new double[l.Strings.Length]);
        var less = BankNetwork.OnBusBars(l.Strings[1..], new double[l.Strings.Length - 1], new double[l.Strings.Length - 1]);
        Assert.True(ShortCircuit.Work(all, 8, 3.55).ShortCircuitA >= ShortCircuit.Work(less, 8, 3.55).ShortCircuitA);
    }

    private static double[] Mirror(double[] list) => [.. list.Reverse()];
}

/// <summary>What must hold of every cable and fuse.</summary>
public class WiringLaws
{
    public static TheoryData<string> Practices() => [.. CablePractices.All.Select(p => p.Id)];

    [Theory]
    [MemberData(nameof(Practices))]
    public void More_copper_never_drops_more_at_the_same_temperature(string practice)
    {
        var rows = CablePractices.Get(practice).Rows;
        for (var i = 1; i < rows.Count; i++)
            Assert.True(
                Cable.Resistance(rows[i].Conductor.R20MilliohmPerM, 3, 60, 1)
                    < Cable.Resistance(rows[i - 1].Conductor.R20MilliohmPerM, 3, 60, 1),
                $"{rows[i].Size}"
            );
    }

    [Theory]
    [MemberData(nameof(Practices))]
    public void A_cable_chosen_for_a_fuse_is_never_below_it(string practice)
    {
        for (var amps = 5.0; amps < 450; amps *= 1.17)
        {
            if (FuseClasses.Get("class-t").Next(Fuse.Margin * amps) is not { } rating)
                continue;
            var input = new CableSelectInput(CablePractices.Get(practice), amps, 25.6, 2) { FuseRatingA = rating };
            var selected = CableSelect.Work(input);
            if (selected.Choice is { } choice)
                Assert.True(choice.AmpacityA >= rating, $"{amps} A: {choice.Row.Size} carries {choice.AmpacityA} A, fuse {rating} A");
            else
                Assert.NotEmpty(selected.Unmet!);
        }
    }

    [Fact]
    public void Ratings_of_every_class_rise() => Assert.All(FuseClasses.All, c => Assert.Equal(c.RatingsA.Order().Distinct(), c.RatingsA));
}
