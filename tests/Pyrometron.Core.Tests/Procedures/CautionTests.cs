using Pyrometron.Core.Fleet;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Procedures;

namespace Pyrometron.Core.Tests.Procedures;

/// <summary>Published figures in the cautions. The limits are from memory; what is reckoned from them is recomputed.</summary>
public class CautionTests
{
    private static IEnumerable<Caution> All =>
        Enum.GetValues<AssetKind>()
            .SelectMany(kind =>
                Enum.GetValues<ServiceLevel>()
                    .SelectMany(level =>
                        WorkCard.For(new CardBasis(kind, level, ModelNotes.Empty("x"), BenchSchools.Default, HasPads: true))
                    )
            )
            .SelectMany(s => s.Cautions)
            .Distinct();

    /// <summary>29 CFR 1910.242(b): below 30 psi; 1 psi = 6.894757 kPa.</summary>
    [Fact]
    public void Air_for_cleaning_stays_below_thirty_psi()
    {
        Assert.Equal(Caution.MostAirKilopascals, Reference.Value("15.2-kpa"), 5e-4);
        Assert.Contains(
            All,
            c => c.Source == "29 CFR 1910.242(b)" && c.Text.ToString().Contains("30 psi (207 kPa)", StringComparison.Ordinal)
        );
    }

    /// <summary>2-propanol: lower explosive limit 2.0 % by volume, flash point 12 °C (NIOSH Pocket Guide).</summary>
    [Fact]
    public void Little_alcohol_fills_a_closed_case()
    {
        Assert.Equal(Reference.Value("15.1-ml10lel"), Caution.MillilitresToTenthOfLowerLimit(60), 1e-3);
        Assert.Contains(
            All,
            c =>
                c.Source == "NIOSH Pocket Guide"
                && c.Text.ToString().Contains("12 °C", StringComparison.Ordinal)
                && c.Text.ToString().Contains("0.4 ml", StringComparison.Ordinal)
        );
    }

    /// <summary>NIOSH 94-110 (Waters et al. 1993): 23 kg with every multiplier at 1.</summary>
    [Fact]
    public void One_person_lifts_twenty_three_kilograms_at_the_very_most()
    {
        Assert.Equal(Caution.MostLiftedKg, Reference.Value("15.4-ideal"), 1e-9);
        Assert.Contains(All, c => c.Source == "NIOSH 94-110");
    }

    /// <summary>ANSI/ESD S20.20: wrist strap system below 3.5·10⁷ Ω. ISO 13732-1: any material, one minute, 51 °C.</summary>
    [Fact]
    public void Straps_and_hot_surfaces()
    {
        Assert.Contains(All, c => c.Source == "ANSI/ESD S20.20" && c.Text.ToString().Contains("35 MΩ", StringComparison.Ordinal));
        Assert.Contains(
            All,
            c => c.Source == "ISO 13732-1:2006" && c.Text.ToString().Contains("51 °C", StringComparison.Ordinal)
        );
    }

    [Fact]
    public void Cautions_stand_where_they_matter_and_only_there()
    {
        IReadOnlyList<CardStep> Card(AssetKind kind, ServiceLevel level) =>
            WorkCard.For(new CardBasis(kind, level, ModelNotes.Empty("x"), BenchSchools.Default));
        Assert.DoesNotContain(
            Card(AssetKind.Desktop, ServiceLevel.DustOut),
            s => s.Cautions.Any(c => c.Text.ToString().Contains("Alcohol", StringComparison.Ordinal))
        );
        Assert.Contains(
            Card(AssetKind.Desktop, ServiceLevel.Repaste).Single(s => s.Id == "paste-off").Cautions,
            c => c.Text.ToString().Contains("ventilate", StringComparison.Ordinal)
        );
        Assert.Contains(
            Card(AssetKind.Laptop, ServiceLevel.DustOut).Single(s => s.Id == "battery-out").Cautions,
            c => c.Text.ToString().Contains("Swollen", StringComparison.Ordinal)
        );
    }
}
