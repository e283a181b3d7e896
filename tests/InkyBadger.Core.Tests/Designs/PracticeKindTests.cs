using System.Collections.Concurrent;
using InkyBadger.Core.Practice;

namespace InkyBadger.Core.Tests.Designs;

/// <summary>What shows that a part is well, for each kind of fault, on a bank in which it is.</summary>
public class PracticeKindTests
{
    private static readonly ConcurrentDictionary<(int, int), PracticeBank> Made = new();

    /// <summary>Kind, number and level of the bank, part, and the sentence that answers whoever says it there.</summary>
    public static TheoryData<string, int, int, string, string> Fine =>
        new()
        {
            { "unit-chemistry", 1, 2, "b1/unit-1-1", "LFP, as all the others." },
            { "string-unlike", 1, 2, "b1/unit-1-1", "Each string has 100 Ah." },
            { "old-and-new", 1, 2, "b1/unit-1-1", "All are of one age, as far as their labels say." },
            { "bad-joint", 1, 2, "b1/unit-1-1", "No joint of it was measured as bad." },
            { "no-bms", 1, 2, "b1/unit-1-1", "It has a BMS of its own, 100.0 A." },
            { "not-as-full", 1, 2, "b1/unit-2-1", "Nothing says that they rest at different volts." },
            { "too-heavy", 1, 2, "b1/unit-2-1", "22.4 kg, and one person lifts 25 kg." },
            { "more-than-allowed", 1, 2, "b1/bank", "1S4P; the unit allows 2 in series and 4 side by side." },
            { "bms-opens", 1, 2, "b1/bank", "94.9 A at full load, and it gives 374.9 A." },
            {
                "bms-opens-at-start",
                1,
                2,
                "b1/bank",
                "The worst start draws 27.8 A from the string that works hardest, and its BMS gives 200.0 A for 10 s."
            },
            { "cascade", 1, 2, "b1/bank", "94.9 A at full load, and with a string out it still gives 282.9 A." },
            { "too-small", 1, 2, "b1/bank", "It holds 9.22 kWh to use, and a day takes 1.88 kWh." },
            { "same-end", 1, 2, "b1/take-off", "The string that works hardest carries 26.7 %, where 25.0 % would be even." },
            { "conductor-thin", 1, 2, "b1/copper-link-positive-1-1", "25 mm² is good for 140.0 A; 125.0 A at most while the fuse holds." },
            { "links-thin", 1, 2, "b1/copper-link-positive-1-1", "25 mm² is good for 140.0 A; 125.0 A at most while the fuse holds." },
            { "bad-lug", 1, 2, "b1/copper-link-positive-1-1", "No lug of it was measured as bad." },
            { "string-unfused", 1, 2, "b1/string-fuses", "Each has one of 125 A, Class T, bolted." },
            { "string-fuse-small", 1, 2, "b1/string-fuses", "125 A, and a string carries 94.9 A at most." },
            { "string-fuse-large", 1, 2, "b1/string-fuses", "125 A before copper for 140.0 A." },
            { "fuse-above-cable", 1, 2, "b1/main-fuse", "125 A on 25 mm² that carries 140.0 A." },
            { "fuse-too-small", 1, 2, "b1/main-fuse", "94.9 A at full load ask for 118.6 A or more, and it is 125 A." },
            { "fuse-at-start", 1, 2, "b1/main-fuse", "104.1 A at the worst start, which it bears for good." },
            { "fuse-volts", 1, 2, "b1/main-fuse", "Made for 160 V, and charging lifts the bank to 28.4 V." },
            { "fuse-far", 1, 2, "b1/main-fuse", "0.15 m from its beginning; the house rule bears 0.18 m." },
            { "cable-thin", 1, 2, "b1/main-cable", "25 mm² carries 140.0 A, and 94.9 A flow." },
            { "cable-unequal", 1, 2, "b1/main-cable", "One conductor to a pole." },
            { "cable-bundled", 1, 2, "b1/main-cable", "Laid apart: 140.0 A, behind 125 A." },
            { "switch-none", 1, 2, "b1/switch", "There is one." },
            { "switch-volts", 1, 2, "b1/switch", "Made for 32 V DC; charging lifts the bank to 28.4 V." },
            { "switch-amps", 1, 2, "b1/switch", "Made for 150 A: 94.9 A at full load, 104.1 A at the worst start." },
            { "precharge-none", 1, 2, "b1/switch", "A resistor across it fills them." },
            { "shunt-bypassed", 1, 2, "b1/shunt", "What hangs on the bus comes back through it." },
            { "bus-rating", 1, 2, "b1/bus", "Made for 150 A, behind 125 A." },
            { "bonding-none", 1, 2, "b1/bonding", "16 mm² to chassis, hull or earth." },
            { "bonding-thin", 1, 2, "b1/bonding", "16 mm², where 13 mm² are the least." },
            { "inverter-running", 1, 2, "b1/inverter", "800 W run at once, and it gives 2,000 W." },
            { "inverter-surge", 1, 2, "b1/inverter", "2,200 W at the worst start, and it gives 4,000 W." },
            { "inverter-wave", 1, 2, "b1/inverter", "The inverter’s wave is a sine." },
            { "inverter-idle", 1, 2, "b1/inverter", "Idling takes 2.0 % of the day." },
            { "fuse-none", 1, 2, "b1/panel", "30 A, Class T, bolted." },
            { "fuses-together", 1, 2, "b1/panel", "30 A behind 125 A: by their times it opens alone." },
            { "fuse-interrupt", 1, 2, "b1/load-d11", "1.5 kA in a short, more than its 1.0 kA; the fuse before it breaks that in time." },
            { "load-tap", 1, 2, "b1/load-d11", "It hangs on the whole bank." },
            { "charge-equalise", 1, 2, "b1/source-roof", "Equalising is off." },
            { "array-cold", 1, 2, "b1/array-roof", "106.39 V when cold and open; the controller bears 150 V." },
            { "array-reach", 1, 2, "b1/array-roof", "68.41 V when hot; the bank is filled at 28.4 V." },
            { "array-fuse", 1, 2, "b1/array-roof", "Two strings: a shorted one is fed by one alone." },
            { "array-clips", 1, 2, "b1/array-roof", "880 W on a controller of 30 A." },
            { "charge-too-low", 1, 2, "b1/source-engine", "28.4 V, between 27 V and 29.2 V of these cells." },
            { "charge-too-much", 1, 2, "b1/source-engine", "45.0 A in all; the bank takes 200.0 A." },
            { "lithium-living", 1, 2, "place", "It stands where nobody lives." },
            { "too-cold", 1, 2, "place", "20 °C, and lithium is charged above 0 °C." },
            { "hydrogen", 2, 3, "b1/unit-1-1", "AGM is sealed." },
            { "other-volts", 2, 3, "b1/bank", "12.8 V of a 12 V system." },
            { "cable-drop", 2, 3, "b1/main-cable", "2.0 % over 2 m; 3.0 % is allowed." },
            { "inverter-loop", 2, 3, "b1/inverter", "No charger hangs on its outlets." },
            { "inverter-cut-off", 2, 3, "b1/inverter", "11.86 V are left at the worst start, and it cuts off at 10.5 V." },
            { "inverter-too-large-current", 2, 3, "b1/inverter", "34.7 A at 12 V; the house rule bears 125 A." },
            { "load-start", 2, 3, "b1/load-d11", "It has no start to speak of." },
            { "charge-too-high", 2, 3, "b1/source-roof", "14.2 V, between 13.5 V and 14.6 V of these cells." },
            { "array-touch", 2, 3, "b1/array-roof", "26.6 V when cold, and 60 V may be touched." },
            { "array-current", 2, 3, "b1/array-roof", "14.5 A to design for; the controller bears 30.0 A." },
            { "charge-compensation", 2, 3, "b1/source-plug", "Its compensation is off." },
            { "too-many-strings", 3, 4, "b1/bank", "3 strings; the house rule stops at 4." },
            { "load-window", 3, 4, "b1/load-d13", "It takes 40 V to 60 V, and gets 47.75 V to 56.8 V." },
            { "charge-direct", 3, 4, "b1/source-plug", "No alternator hangs on it." },
            { "array-unlike", 4, 5, "b1/array-roof", "All are of one kind and look one way." },
            { "unequal-leads", 4, 5, "b2/take-off", "The string that works hardest carries 50.0 %, where 50.0 % would be even." },
            { "join-ring", 4, 5, "join-j1", "It goes one way only." },
            { "unit-smaller", 5, 6, "b1/unit-1-1", "180 Ah in its string." },
            { "weak-unit", 5, 6, "b1/unit-1-1", "Nothing was tested that says so." },
            { "unlevel", 5, 6, "b1/unit-1-2", "Its string stands level, as far as was measured." },
            { "join-volts", 5, 6, "join-j1", "It makes its volts anew: 25.6 V to 12.8 V." },
            { "join-rush", 5, 6, "join-j1", "It lets through its own amperes and no more." },
            { "join-drains", 5, 6, "join-j1", "417 Wh a day and 1.27 kWh of its own; it holds 4.06 kWh." },
            { "inverter-class", 8, 3, "b1/inverter", "Made for 24 V, on a 24 V bus." },
            { "charge-engine-share", 17, 6, "b1/source-engine", "It charges with 15.0 A; hot the alternator allows 22.6 A." },
            { "charge-supply", 27, 4, "b1/source-plug", "2.06 A of 10 A at the plug." },
        };

    [Theory]
    [MemberData(nameof(Fine))]
    public void A_miss_names_the_figure_that_shows_it_is_fine(string kind, int seed, int level, string part, string words)
    {
        var bank = Made.GetOrAdd((seed, level), key => PracticeBank.Make(key.Item1, key.Item2));
        var answer = bank.Go([new(part, kind, 1)], over: false).Answers[0];
        Assert.Equal((AnswerIs.Miss, "It was fine"), (answer.Is, answer.Lead));
        Assert.Equal(words, answer.Shown.Words.Replace('\u00a0', ' '));
    }

    [Fact]
    public void Every_kind_has_such_a_sentence() => Assert.Equal(PracticeBank.KindIds.Order(), Fine.Select(f => f.Data.Item1).Order());
}
