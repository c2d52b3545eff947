using Pyrometron.Core.Fleet;

namespace Pyrometron.Formats.Tables;

/// <summary>Words in cells, as people of eight languages write them.</summary>
internal static class CellWords
{
    // The more special word stands first: "ordinateur portable" is a laptop, "server rack" a server.
    private static readonly (AssetKind Kind, string[] Words)[] Kinds =
    [
        (
            AssetKind.GraphicsCard,
            [
                "graphics card",
                "graphic card",
                "video card",
                "display card",
                "gpu",
                "accelerator",
                "grafikkarte",
                "videokarte",
                "carte graphique",
                "tarjeta grafica",
                "tarjeta de video",
                "scheda grafica",
                "scheda video",
                "grafische kaart",
                "videokaart",
                "karta graficzna",
                "grafikkort",
                "placa grafica",
                "placa de video",
                "rechenkarte",
            ]
        ),
        (
            AssetKind.Laptop,
            [
                "laptop",
                "notebook",
                "ultrabook",
                "portable",
                "portatil",
                "portatile",
                "klapprechner",
                "tragbar",
                "barbar",
                "mobile workstation",
                "netbook",
                "przenosny",
            ]
        ),
        (
            AssetKind.Server,
            ["server", "serveur", "servidor", "serwer", "servere", "blade", "rackserver", "nas", "storage node", "compute node"]
        ),
        (
            AssetKind.Desktop,
            [
                "desktop",
                "pc",
                "workstation",
                "tower",
                "mini pc",
                "all in one",
                "arbeitsplatz",
                "rechner",
                "standrechner",
                "tischrechner",
                "computer",
                "ordinateur",
                "fixe",
                "unite centrale",
                "sobremesa",
                "ordenador",
                "computador",
                "fisso",
                "stacjonarny",
                "stationar",
                "komputer",
                "bordscomputer",
                "vaste computer",
                "dator",
            ]
        ),
    ];

    private static readonly (ServiceLevel Level, string[] Words)[] Levels =
    [
        (ServiceLevel.Repad, ["repad", "pads", "pad", "warmeleitpad", "pads thermiques", "almohadillas", "pad termici"]),
        (
            ServiceLevel.Repaste,
            [
                "repaste",
                "paste",
                "warmeleitpaste",
                "pate thermique",
                "pasta termica",
                "pasta",
                "koelpasta",
                "kylpasta",
                "termopasta",
            ]
        ),
        (ServiceLevel.FanSwap, ["fan", "lufter", "ventilateur", "ventilador", "ventola", "ventilator", "wentylator", "flakt"]),
        (
            ServiceLevel.BlowOut,
            ["blow out", "blown out", "blow", "air only", "ausgeblasen", "ausblasen", "souffle", "soplado", "soffiato"]
        ),
        (
            ServiceLevel.DustOut,
            [
                "dust out",
                "dust",
                "clean",
                "cleaning",
                "cleaned",
                "reinigung",
                "gereinigt",
                "entstaubt",
                "nettoyage",
                "depoussierage",
                "limpieza",
                "pulizia",
                "schoonmaak",
                "gereinigd",
                "czyszczenie",
                "rengoring",
                "limpeza",
                "maintenance",
                "wartung",
                "entretien",
                "mantenimiento",
                "manutenzione",
                "onderhoud",
            ]
        ),
        (
            ServiceLevel.Inspect,
            ["inspect", "inspection", "look", "checked", "geprüft", "sichtprufung", "inspection visuelle", "revision"]
        ),
    ];

    private static readonly (DustClass Dust, string[] Words)[] Dusts =
    [
        (
            DustClass.Clean,
            [
                "clean",
                "low",
                "none",
                "sauber",
                "gering",
                "wenig",
                "rein",
                "propre",
                "faible",
                "limpio",
                "bajo",
                "poco",
                "pulito",
                "basso",
                "schoon",
                "laag",
                "czysto",
                "niskie",
                "ren",
                "lag",
            ]
        ),
        (
            DustClass.Heavy,
            [
                "heavy",
                "high",
                "dirty",
                "dusty",
                "stark",
                "hoch",
                "viel",
                "staubig",
                "fort",
                "eleve",
                "sale",
                "alto",
                "mucho",
                "sucio",
                "polveroso",
                "sporco",
                "hoog",
                "zwaar",
                "vuil",
                "wysokie",
                "duzo",
                "hog",
                "smutsig",
            ]
        ),
        (
            DustClass.Normal,
            ["normal", "medium", "middle", "average", "mittel", "moyen", "normale", "medio", "gemiddeld", "srednie", "medel"]
        ),
    ];

    /// <summary>The kind a word names, or null.</summary>
    public static AssetKind? Kind(string text) => Find(Kinds, text);

    /// <summary>The level a word names, or null.</summary>
    public static ServiceLevel? Level(string text) =>
        Words.TryRead<ServiceLevel>(text.Trim(), out var exact) ? exact : Find(Levels, text);

    /// <summary>The dust class a word names, or null.</summary>
    public static DustClass? Dust(string text) => Find(Dusts, text);

    private static T? Find<T>((T Value, string[] Words)[] table, string text)
        where T : struct, Enum
    {
        if (Words.TryRead<T>(text.Trim(), out var exact))
            return exact;
        var folded = $" {Folded.Of(text)} ";
        foreach (var (value, words) in table)
            if (
                words.Any(w =>
                    folded.Contains($" {w} ", StringComparison.Ordinal)
                    || w.Length > 4 && folded.Contains(w, StringComparison.Ordinal)
                )
            )
                return value;
        return null;
    }
}
