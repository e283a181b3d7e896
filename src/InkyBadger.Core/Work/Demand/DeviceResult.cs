using InkyBadger.Core.Wiring;

namespace InkyBadger.Core.Work;

/// <summary>
/// A DC device (index of its load): the volts it accepts, the least and greatest it is given, and which end of its window they leave.
/// </summary>
public sealed record DeviceResult(
    int Load,
    double MinV,
    double MaxV,
    double LeastV,
    double GreatestV,
    bool Fits,
    IReadOnlyList<WindowFailure> Fails
);
