namespace Pyrometron.Core.Statistics;

/// <summary>Chance, beyond the uniform.</summary>
public static class RandomNumbers
{
    extension(Random random)
    {
        /// <summary>A standard normal deviate (Box &amp; Muller 1958).</summary>
        public double Normal() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

        /// <summary>Uniform between two bounds.</summary>
        public double Between(double low, double high) => low + random.NextDouble() * (high - low);

        /// <summary>True in a share of the draws.</summary>
        public bool Chance(double share) => random.NextDouble() < share;
    }
}
