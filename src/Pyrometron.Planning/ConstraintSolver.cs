using Google.OrTools.Sat;

namespace Pyrometron.Planning;

/// <summary>Makes constraint solvers as this program needs them.</summary>
internal static class ConstraintSolver
{
    /// <summary>
    /// A solver that leaves Ctrl-C alone. By itself it takes the signal while it solves and then sets it back to what ends a
    /// process at once, so that a server that had solved anything would be cut off instead of stopped.
    /// </summary>
    /// <param name="parameters">Others, in the solver's text form.</param>
    public static CpSolver Of(string parameters = "") => new() { StringParameters = $"catch_sigint_signal:false {parameters}" };
}
