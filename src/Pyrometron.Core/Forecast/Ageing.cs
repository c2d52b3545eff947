using Pyrometron.Core.Units;

namespace Pyrometron.Core.Forecast;

/// <summary>How much faster a part ages when it is hotter (Arrhenius; JEDEC JEP122).</summary>
public static class Ageing
{
    /// <summary>Activation energy unless the house says otherwise, eV.</summary>
    public const double ActivationEnergyEv = 0.7;

    /// <summary>k/e, eV/K (SI 2019: 1.380649e-23 / 1.602176634e-19).</summary>
    private const double BoltzmannEvPerKelvin = 1.380649e-23 / 1.602176634e-19;

    /// <summary>
    /// The acceleration factor exp[(Ea/k)(1/T1 − 1/T2)], T absolute; above 1 when <paramref name="to"/> is the hotter.
    /// </summary>
    public static double Acceleration(Celsius from, Celsius to, double activationEnergyEv = ActivationEnergyEv) =>
        Math.Exp(activationEnergyEv / BoltzmannEvPerKelvin * (1 / from.ToAbsoluteKelvin() - 1 / to.ToAbsoluteKelvin()));
}
