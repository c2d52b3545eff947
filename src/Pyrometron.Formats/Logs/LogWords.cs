namespace Pyrometron.Formats.Logs;

/// <summary>Words in the headers of sensor logs, in eight languages; a word of two is written with an underscore here.</summary>
internal static class LogWords
{
    public static readonly string[] Temperatures = Of(
        """
        temp temps temperature temperatur temperatura temperatuur thermal heat hitze warme
        """
    );

    public static readonly string[] Powers = Of(
        """
        power watt watts leistung leistungsaufnahme puissance potencia potenza vermogen moc effekt verbrauch
        consommation consumo
        """
    );

    public static readonly string[] Clocks = Of(
        """
        clock clk freq frequency frequenz takt taktfrequenz taktrate frequence frecuencia frequenza frequentie
        taktowanie klockfrekvens
        """
    );

    public static readonly string[] Loads = Of(
        """
        load usage utilization utilisation busy auslastung last charge carga uso carico utilizzo belasting gebruik
        obciazenie belastning nutzung
        """
    );

    public static readonly string[] Fans = Of(
        """
        fan fans lufter gehauselufter ventilateur ventilador ventola ventilator wentylator flakt pump pumpe
        """
    );

    public static readonly string[] Days = Of(
        """
        date datum fecha data day tag jour dia giorno
        """
    );

    public static readonly string[] Times = Of(
        """
        time timestamp datetime zeit uhrzeit zeitstempel zeitpunkt heure horodatage hora ora orario tijd tijdstip
        czas tid tidpunkt when moment instant
        """
    );

    public static readonly string[] Airs = Of(
        """
        ambient intake inlet room air raum raumluft zuluft ansaugluft umgebung ambiante ambiant entree salle ambiente
        entrada aria ingresso kamer inlaat omgeving otoczenie wlot rum intag omgivning lucht
        """
    );

    public static readonly string[] Elsewhere = Of(
        """
        outlet exhaust abluft sortie salida uscita uitlaat wylot mainboard motherboard hauptplatine chipset pch ssd
        hdd drive disk disque disco festplatte nvme battery akku batterie bateria batteria psu netzteil wifi limit
        max min threshold grenze distance throttle margin
        """
    );

    /// <summary>Parts by their words; the first that fits counts: "memory junction" is the memory.</summary>
    public static readonly (string Part, string[] Words)[] Parts =
    [
        (
            "memory",
            Of(
                """
                memory mem vram gddr dimm ram speicher grafikspeicher memoire memoria geheugen pamiec minne
                """
            )
        ),
        (
            "hotspot",
            Of(
                """
                hotspot hot_spot junction heisspunkt point_chaud punto_caliente punto_caldo
                """
            )
        ),
        (
            "vrm",
            Of(
                """
                vrm mos mosfet regulator regulators spannungswandler wandler regulateur regulador regolatore
                """
            )
        ),
        (
            "gpu",
            Of(
                """
                gpu graphics graphic grafik grafikchip grafikkarte graphique grafica video grafisch karta_graficzna carte
                """
            )
        ),
        (
            "cpu",
            Of(
                """
                cpu processor prozessor processeur procesador processore procesor package die core cores kern coeur nucleo
                socket ccd tctl
                """
            )
        ),
    ];

    private static string[] Of(string words) =>
        [.. words.Split([' ', '\n'], StringSplitOptions.RemoveEmptyEntries).Select(w => w.Replace('_', ' '))];
}
