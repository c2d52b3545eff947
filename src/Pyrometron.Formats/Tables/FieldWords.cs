using Pyrometron.Core.Fleet;

namespace Pyrometron.Formats.Tables;

/// <summary>What a column of a table of machines can hold.</summary>
public enum MachineField
{
    Tag,
    Kind,
    Model,
    Site,
    Zone,
    Dust,
    DesignAmbientCelsius,
    AltitudeMetres,
    DutyHoursPerDay,
    InServiceSince,
    WarrantyUntil,
    HostTag,
    LastServiceDate,
    LastServiceLevel,
    LimitCelsius,
    Ignore,
}

/// <summary>
/// How people head the columns of their lists of machines, in eight languages. A phrase counts where all of its words are in the
/// header, each as a word or, from five letters on, within a longer one; what is matched by more letters is surer.
/// </summary>
internal static class FieldWords
{
    private static readonly Dictionary<MachineField, string> Phrases = new()
    {
        [MachineField.Tag] = """
            tag|asset tag|asset|asset id|asset no|inventory|inventory number|inventory no|inv nr|inv no|inventar|
            inventarnummer|inventar nr|gerat|gerate id|geratenummer|geratename|rechnername|computername|
            computer name|hostname|host name|machine|machine name|device|device name|device id|name|id|nummer|no|nr|
            label|etikett|numero d inventaire|no inventaire|inventaire|nom de l ordinateur|nom|appareil|poste|
            etiqueta|numero de inventario|inventario|nombre|equipo|etichetta|numero inventario|matricola|nome|
            nome macchina|macchina|naam|apparaatnaam|apparaat|inventarisnummer|nazwa|numer inwentarzowy|
            nr inwentarzowy|inventarienummer|namn|navn|kennung|kennzeichen|patrimonio|numero de patrimonio|serial|
            serial number|seriennummer|numero de serie|numero di serie|serienummer|numer seryjny
            """,
        [MachineField.Kind] = """
            kind|type|device type|machine type|asset type|category|class|form factor|art|gerateart|geratetyp|typ|
            kategorie|klasse|bauform|type d appareil|type de machine|categorie|genre|tipo|tipo de equipo|
            tipo de dispositivo|categoria|clase|tipo di dispositivo|tipo dispositivo|tipologia|soort|apparaattype|
            rodzaj|typ urzadzenia|slag|enhetstyp|kategori
            """,
        [MachineField.Model] = """
            model|model name|product|product name|make and model|modell|modellbezeichnung|bezeichnung|produkt|
            baureihe|modele|reference|designation|modelo|producto|modello|prodotto|malli|hersteller und modell|
            marque et modele|marca y modelo|marca e modello
            """,
        [MachineField.Site] = """
            site|location|building|campus|branch|office|standort|gebaude|niederlassung|filiale|liegenschaft|lieu|
            batiment|agence|emplacement|sitio|sede|edificio|ubicacion|sucursal|localizacao|predio|locatie|gebouw|
            vestiging|lokalizacja|budynek|plats|byggnad
            """,
        [MachineField.Zone] = """
            zone|room|floor|aisle|rack|row|department|area|hall|raum|zimmer|etage|stockwerk|abteilung|halle|reihe|
            bereich|salle|piece|bureau|service dept|sala|planta|piso|habitacion|oficina|departamento|stanza|piano|
            ufficio|reparto|ruimte|kamer|verdieping|afdeling|pokoj|pietro|sal|rum|vaning|avdelning
            """,
        [MachineField.Dust] = """
            dust|dust class|dustiness|staub|staubklasse|staubbelastung|poussiere|empoussierement|polvo|polvere|stof|
            stofklasse|kurz|zapylenie|damm|poeira
            """,
        [MachineField.DesignAmbientCelsius] = """
            design ambient|ambient|ambient temperature|max ambient|room temperature|warmest air|intake air|
            umgebungstemperatur|raumtemperatur|auslegungstemperatur|hochste raumtemperatur|zuluft|
            temperature ambiante|temperature de la salle|temperatura ambiente|temperatura de la sala|
            temperatura ambiente max|omgevingstemperatuur|kamertemperatuur|temperatura otoczenia|rumstemperatur
            """,
        [MachineField.AltitudeMetres] = """
            altitude|elevation|height above sea|metres above sea level|hohe|seehohe|hohe uber meer|hohe u m|
            meereshohe|altitud|altura|altitudine|quota|hoogte|wysokosc|hojd over havet
            """,
        [MachineField.DutyHoursPerDay] = """
            hours per day|hours day|duty hours|daily hours|h day|hours a day|usage hours|on hours|stunden pro tag|
            stunden tag|betriebsstunden|betriebsstunden pro tag|std tag|h tag|laufzeit|laufzeit pro tag|nutzung h|
            heures par jour|heures jour|h jour|utilisation h|horas por dia|horas al dia|horas dia|ore al giorno|
            ore giorno|ore di uso|uren per dag|uren dag|godziny dziennie|godzin na dobe|timmar per dag
            """,
        [MachineField.InServiceSince] = """
            in service since|in service|in use since|purchase date|purchased|bought|bought on|date of purchase|
            commissioned|start of use|installed on|deployed|acquired|inbetriebnahme|in betrieb seit|im einsatz seit|
            kaufdatum|gekauft|gekauft am|anschaffung|anschaffungsdatum|angeschafft|date d achat|achete le|
            mise en service|en service depuis|date de mise en service|fecha de compra|comprado|puesta en servicio|
            en servicio desde|fecha de alta|data di acquisto|data acquisto|acquistato|in servizio dal|
            messa in servizio|aankoopdatum|in gebruik sinds|aangeschaft|data zakupu|w uzyciu od|kopdatum|
            inkopsdatum|data de compra
            """,
        [MachineField.WarrantyUntil] = """
            warranty|warranty until|warranty end|warranty ends|warranty expires|warranty expiry|guarantee|
            guarantee until|garantie|garantie bis|garantieende|garantieablauf|gewahrleistung|gewahrleistung bis|
            fin de garantie|garantie jusqu au|sous garantie jusqu au|garantia|garantia hasta|fin de garantia|
            garanzia|garanzia fino al|fine garanzia|scadenza garanzia|garantie tot|einde garantie|gwarancja|
            gwarancja do|koniec gwarancji|garanti|garanti till|garantia ate
            """,
        [MachineField.HostTag] = """
            host|host tag|host machine|installed in|built into|parent|inside|eingebaut in|steckt in|wirtsrechner|
            tragerrechner|installe dans|machine hote|hote|instalado en|equipo anfitrion|anfitrion|installato in|
            macchina ospite|ingebouwd in|zamontowany w|sitter i
            """,
        [MachineField.LastServiceDate] = """
            last service|last service date|last serviced|last cleaned|last cleaning|cleaned on|cleaned|serviced|
            date of last service|last maintenance|letzte wartung|letzte reinigung|zuletzt gereinigt|
            zuletzt gewartet|gereinigt am|gewartet am|letzter service|dernier entretien|derniere maintenance|
            dernier nettoyage|nettoye le|ultima limpieza|ultimo mantenimiento|ultimo servicio|ultima pulizia|
            ultima manutenzione|pulito il|laatste onderhoud|laatst gereinigd|laatste beurt|ostatni serwis|
            ostatnie czyszczenie|ostatni przeglad|senaste service|senast rengjord|ultima manutencao
            """,
        [MachineField.LastServiceLevel] = """
            last service level|service level|level|last work|work done|service type|kind of service|type of service|
            wartungsart|art der wartung|letzte arbeit|wartungsstufe|type d entretien|nature de l entretien|travaux|
            tipo de servicio|tipo de mantenimiento|trabajo realizado|tipo di intervento|tipo intervento|
            lavoro svolto|soort onderhoud|rodzaj serwisu|typ av service
            """,
        [MachineField.LimitCelsius] = """
            limit|temperature limit|temp limit|max temp|max temperature|maximum temperature|throttle temperature|
            throttle temp|grenztemperatur|grenzwert|temperaturgrenze|max temperatur|hochsttemperatur|
            temperature limite|temperature max|limite|temperatura limite|temperatura maxima|temperatura massima|
            grenstemperatuur|maximale temperatuur|temperatura maksymalna|maxtemperatur
            """,
    };

    private static readonly (MachineField Field, string[] Words, int Letters)[] All =
    [
        .. Phrases.SelectMany(p =>
            p.Value.Split(['|', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .Select(phrase => (p.Key, phrase.Split(' '), phrase.Replace(" ", "", StringComparison.Ordinal).Length))
        ),
    ];

    /// <summary>Letters from which on a word also counts within a longer one, as in "Garantieablaufdatum".</summary>
    private const int LongEnough = 5;

    /// <summary>How well a header fits each field, best first; empty where nothing fits.</summary>
    public static IReadOnlyList<(MachineField Field, double Score)> Of(string header)
    {
        if (Words.TryRead<MachineField>(Folded.Of(header).Replace(' ', '-'), out var exact))
            return [(exact, double.PositiveInfinity)];
        var folded = Folded.Of(header);
        var words = folded.Split(' ', StringSplitOptions.RemoveEmptyEntries);
        var letters = folded.Length - words.Length + 1;
        if (letters <= 0)
            return [];
        return
        [
            .. All.Where(p => p.Words.All(w => words.Any(h => Holds(h, w))))
                .Select(p => (p.Field, Score: (double)p.Letters * p.Letters / Math.Max(letters, p.Letters)))
                .GroupBy(p => p.Field)
                .Select(g => (g.Key, g.Max(p => p.Score)))
                .OrderByDescending(p => p.Item2),
        ];
    }

    private static bool Holds(string word, string stem) =>
        word == stem || stem.Length >= LongEnough && word.Contains(stem, StringComparison.Ordinal);
}
