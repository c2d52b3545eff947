namespace Pyrometron.Core.Drift;

/// <summary>Standard uncertainties of a part's fouling, joint and mount by the scatter of what was measured, K.</summary>
internal readonly record struct WearScatter(double Shared, double Own, double Mount);
