using System.Text;
using Pyrometron.Core.Fleet;
using Pyrometron.Formats.Tables;

namespace Pyrometron.Formats.Tests.Tables;

/// <summary>Lists of machines as people's programs write them; invented names, headers of the shapes that are usual.</summary>
public class MachineTableTests
{
    private static readonly DateOnly Today = new(2026, 11, 27);

    private static readonly TableMeanings Nothing = new(new Dictionary<string, MachineField>(), new Dictionary<string, string>());

    private static MachineTable Read(string text, TableMeanings? meanings = null) =>
        MachineTable.Read(TableText.Of(Encoding.UTF8.GetBytes(text)), meanings ?? Nothing, Today);

    private static string[] Fields(MachineTable table) => [.. table.Columns.Select(c => MachineTable.NameOf(c.Field))];

    /// <summary>Header lines in eight languages, each with a line of cells, and what each column holds.</summary>
    [Theory]
    [InlineData(
        "Asset Tag,Device Type,Model,Location,Room,Purchase Date,Warranty Expires,Last Cleaned",
        "DT-1,Desktop,Petrel,Quay House,Chart room,2023-04-01,2026-03-31,2025-02-14",
        "tag,kind,model,site,zone,inServiceSince,warrantyUntil,lastServiceDate"
    )]
    [InlineData(
        "Inventarnummer;Geräteart;Modell;Standort;Raum;Anschaffungsdatum;Garantie bis;Letzte Reinigung;Stunden pro Tag",
        "4711;Arbeitsplatzrechner;Petrel;Kai;2.14;01.04.2023;31.03.2026;14.02.2025;8,5",
        "tag,kind,model,site,zone,inServiceSince,warrantyUntil,lastServiceDate,dutyHoursPerDay"
    )]
    [InlineData(
        "Numéro d'inventaire;Type d'appareil;Modèle;Bâtiment;Salle;Date d'achat;Fin de garantie;Dernier nettoyage",
        "PC-7;Ordinateur portable;Fulmar;Quai;Bureau 3;01/04/2023;31/03/2026;14/02/2025",
        "tag,kind,model,site,zone,inServiceSince,warrantyUntil,lastServiceDate"
    )]
    [InlineData(
        "Número de inventario;Tipo de equipo;Modelo;Sede;Sala;Fecha de compra;Garantía hasta;Última limpieza",
        "EQ-7;Portátil;Fulmar;Muelle;Sala 3;01/04/2023;31/03/2026;14/02/2025",
        "tag,kind,model,site,zone,inServiceSince,warrantyUntil,lastServiceDate"
    )]
    [InlineData(
        "Matricola;Tipo dispositivo;Modello;Edificio;Stanza;Data di acquisto;Fine garanzia;Ultima pulizia",
        "M-7;Portatile;Fulmar;Molo;3;01/04/2023;31/03/2026;14/02/2025",
        "tag,kind,model,site,zone,inServiceSince,warrantyUntil,lastServiceDate"
    )]
    [InlineData(
        "Apparaatnaam;Soort;Model;Gebouw;Kamer;Aankoopdatum;Garantie tot;Laatst gereinigd",
        "NL-7;Laptop;Fulmar;Kade;3;01-04-2023;31-03-2026;14-02-2025",
        "tag,kind,model,site,zone,inServiceSince,warrantyUntil,lastServiceDate"
    )]
    [InlineData(
        "Nr inwentarzowy;Rodzaj;Model;Budynek;Pokój;Data zakupu;Gwarancja do;Ostatnie czyszczenie",
        "PL-7;Komputer stacjonarny;Fulmar;Port;3;01.04.2023;31.03.2026;14.02.2025",
        "tag,kind,model,site,zone,inServiceSince,warrantyUntil,lastServiceDate"
    )]
    [InlineData(
        "Namn;Typ;Modell;Plats;Rum;Inköpsdatum;Garanti till;Senaste service",
        "SE-7;Bärbar dator;Fulmar;Kajen;3;2023-04-01;2026-03-31;2025-02-14",
        "tag,kind,model,site,zone,inServiceSince,warrantyUntil,lastServiceDate"
    )]
    [InlineData(
        "hostname\tform factor\tproduct name\tfloor\tin service since\tduty hours per day\tmax temp (°F)",
        "rack-07\track server\tTern 2U\t2\t2024\t24\t203",
        "tag,kind,model,zone,inServiceSince,dutyHoursPerDay,limitCelsius"
    )]
    [InlineData(
        "Computername;Modellbezeichnung;Etage;Garantieablaufdatum;Umgebungstemperatur max.;Seehöhe",
        "PC-7;Petrel;2;31.03.2026;31,5;312",
        "tag,model,zone,warrantyUntil,designAmbientCelsius,altitudeMetres"
    )]
    [InlineData(
        "tag,kind,model,site,zone,dust,designAmbientCelsius,altitudeMetres,dutyHoursPerDay,inServiceSince,warrantyUntil,hostTag,lastServiceDate,lastServiceLevel,limitCelsius",
        "GC-1,graphics-card,Sorrel,QUAY,QUAY-2,heavy,32,12,24,2024-01-10,,RIG-1,2025-10-01,dust-out,90",
        "tag,kind,model,site,zone,dust,designAmbientCelsius,altitudeMetres,dutyHoursPerDay,inServiceSince,warrantyUntil,hostTag,lastServiceDate,lastServiceLevel,limitCelsius"
    )]
    public void Columns_are_found_by_their_headers(string header, string line, string fields)
    {
        var table = Read($"{header}\r\n{line}\r\n");
        Assert.Equal(fields.Split(','), Fields(table));
        Assert.Empty(table.Refused);
        var machine = Assert.Single(table.Machines);
        Assert.NotEmpty(machine.Tag);
        if (fields.Contains("lastServiceDate", StringComparison.Ordinal) && machine.Tag != "GC-1")
            Assert.Equal(
                (new DateOnly(2023, 4, 1), new DateOnly(2026, 3, 31), new DateOnly(2025, 2, 14)),
                (machine.InServiceSince, machine.WarrantyUntil, machine.LastServiceDate)
            );
    }

    [Theory]
    [InlineData("Workstation", AssetKind.Desktop)]
    [InlineData("Mini-PC", AssetKind.Desktop)]
    [InlineData("ordinateur de bureau", AssetKind.Desktop)]
    [InlineData("Ordinateur portable", AssetKind.Laptop)]
    [InlineData("NOTEBOOK", AssetKind.Laptop)]
    [InlineData("Bärbar dator", AssetKind.Laptop)]
    [InlineData("Rackserver 1U", AssetKind.Server)]
    [InlineData("Serveur", AssetKind.Server)]
    [InlineData("Grafikkarte", AssetKind.GraphicsCard)]
    [InlineData("GPU", AssetKind.GraphicsCard)]
    [InlineData("tarjeta gráfica", AssetKind.GraphicsCard)]
    public void Kinds_are_read_as_people_write_them(string word, AssetKind kind) =>
        Assert.Equal(kind, Read($"tag;type\nA;{word}\n").Machines.Single().Kind);

    /// <summary>Days as written; both orders; spreadsheets' serial numbers (day 45383 is 1 April 2024).</summary>
    [Theory]
    [InlineData("2024-04-01", "2024-04-01")]
    [InlineData("1.4.2024", "2024-04-01")]
    [InlineData("01.04.24", "2024-04-01")]
    [InlineData("31/12/2024", "2024-12-31")]
    [InlineData("12/31/2024", "2024-12-31")]
    [InlineData("2024/4/1", "2024-04-01")]
    [InlineData("1 Apr 2024", "2024-04-01")]
    [InlineData("April 1, 2024", "2024-04-01")]
    [InlineData("1. März 2024", "2024-03-01")]
    [InlineData("3 août 2024", "2024-08-03")]
    [InlineData("4/2024", "2024-04-01")]
    [InlineData("2024", "2024-01-01")]
    [InlineData("45383", "2024-04-01")]
    [InlineData("2024-04-01 00:00:00", "2024-04-01")]
    public void Days_are_read_as_people_write_them(string cell, string day) =>
        Assert.Equal(
            DateOnly.ParseExact(day, "yyyy-MM-dd"),
            Read($"tag;in service since\nA;{cell}\n").Machines.Single().InServiceSince
        );

    [Fact]
    public void One_day_after_the_twelfth_settles_the_order_for_the_column_and_without_one_it_is_asked()
    {
        var american = Read("tag;purchase date\nA;03/04/2024\nB;03/25/2024\n");
        Assert.Equal([new DateOnly(2024, 3, 4), new DateOnly(2024, 3, 25)], american.Machines.Select(m => m.InServiceSince));
        Assert.Empty(american.Questions);
        var open = Read("tag;purchase date\nA;03/04/2024\n");
        Assert.Equal(new DateOnly(2024, 4, 3), open.Machines.Single().InServiceSince);
        Assert.Equal("purchase date", open.Questions.Single().About);
        var told = Nothing with
        {
            Words = new Dictionary<string, string> { [TableMeanings.KeyOf("Purchase Date")] = TableMeanings.MonthFirst },
        };
        var settled = Read("tag;purchase date\nA;03/04/2024\n", told);
        Assert.Equal(new DateOnly(2024, 3, 4), settled.Machines.Single().InServiceSince);
        Assert.Empty(settled.Questions);
    }

    [Theory]
    [InlineData("21,5", 21.5)]
    [InlineData("21.5", 21.5)]
    [InlineData("1.234", 1.234)]
    [InlineData("8 h", 8)]
    public void Both_decimal_signs_read_right_and_no_thousands_are_taken(string cell, double hours) =>
        Assert.Equal(hours, Read($"tag\thours per day\nA\t{cell}\n").Machines.Single().DutyHoursPerDay);

    [Fact]
    public void Fahrenheit_in_the_header_or_in_the_cell_becomes_Celsius()
    {
        Assert.Equal(30, Read("tag;ambient (°F)\nA;86\n").Machines.Single().DesignAmbientCelsius);
        Assert.Equal(30, Read("tag;ambient\nA;86 °F\n").Machines.Single().DesignAmbientCelsius);
        Assert.Equal(30, Read("tag;ambient\nA;30 °C\n").Machines.Single().DesignAmbientCelsius);
    }

    [Fact]
    public void A_bad_line_is_named_by_line_and_column_and_the_good_ones_are_kept()
    {
        var table = Read(
            "Tag;Kind;Hours per day;Bought\nA;desktop;8;1.4.2024\nA;desktop;8;1.4.2024\nB;hovercraft;8;\nC;laptop;30;\nD;laptop;1.234,5;\nE;laptop;8;31.2.2024\n;laptop;8;\nF;laptop;8;1.4.2024;x;y\nG;server;;\n"
        );
        Assert.Equal(["A", "G"], table.Machines.Select(m => m.Tag));
        Assert.Equal([3, 4, 5, 6, 7, 8, 9], table.Refused.Select(r => r.Line!.Value));
        Assert.Equal(
            ["Tag", "Kind", "Hours per day", "Hours per day", "Bought", "Tag", null],
            table.Refused.Select(r => r.Column)
        );
        Assert.Contains("stands on line 2 already", table.Refused[0].Says.ToString(), StringComparison.Ordinal);
        Assert.Contains("without thousands separators", table.Refused[3].Says.ToString(), StringComparison.Ordinal);
        var question = Assert.Single(table.Questions);
        Assert.Equal("hovercraft", question.About);
        var told = Nothing with { Words = new Dictionary<string, string> { [TableMeanings.KeyOf("Hovercraft")] = "server" } };
        Assert.Equal(AssetKind.Server, Read("Tag;Kind\nB;hovercraft\n", told).Machines.Single().Kind);
    }

    [Fact]
    public void A_type_that_names_no_kinds_is_the_model_and_an_unknown_column_is_asked_about()
    {
        var table = Read("Name;Typ;Kürzel\nPC-1;Petrel 7;xx\nPC-2;Petrel 9;yy\n");
        Assert.Equal(["tag", "model", "ignore"], Fields(table));
        var question = Assert.Single(table.Questions);
        Assert.Contains("'xx'", question.Ask, StringComparison.Ordinal);
        Assert.Contains("zone", question.Choices);
        Assert.DoesNotContain("tag", question.Choices);
        var told = Nothing with
        {
            Headers = new Dictionary<string, MachineField> { [MachineColumnsKey("Kürzel")] = MachineField.Zone },
        };
        Assert.Equal(["tag", "model", "zone"], Fields(Read("Name;Typ;Kürzel\nPC-1;Petrel 7;xx\n", told)));
    }

    private static string MachineColumnsKey(string header) => TableMeanings.KeyOf(header);

    [Theory]
    [InlineData("", "empty")]
    [InlineData("just one column\nA\n", "one column")]
    [InlineData("<html><body></body></html>", "web page")]
    [InlineData("{ \"format\": \"pyrometron-fleet/1\" }", "JSON")]
    [InlineData("PK\u0003\u0004rest", "spreadsheet's own file")]
    public void What_is_no_table_says_so_and_what_to_do(string text, string why) =>
        Assert.Contains(why, Assert.Throws<RefusedInputException>(() => Read(text)).Message, StringComparison.Ordinal);

    [Fact]
    public void Without_tags_nothing_is_taken_and_the_columns_are_told()
    {
        var table = Read("Colour;Height\nred;2\nred;3\n");
        Assert.False(table.HasTags);
        Assert.Empty(table.Machines);
        Assert.Contains("Colour, Height", table.LacksTags.Says.ToString(), StringComparison.Ordinal);
        // A first column of which every cell is another is taken for them.
        Assert.Equal("tag", Fields(Read("Colour;Height\nred;2\nblue;2\n"))[0]);
    }

    [Theory]
    [InlineData("utf-16")]
    [InlineData("utf-16BE")]
    [InlineData("utf-8")]
    public void Any_usual_encoding_is_read(string encoding)
    {
        var coded = Encoding.GetEncoding(encoding);
        byte[] bytes = [.. coded.Preamble.ToArray(), .. coded.GetBytes("Tag\tModèle\nA\tÉpée\n")];
        Assert.Equal("Épée", MachineTable.Read(TableText.Of(bytes), Nothing, Today).Machines.Single().Model);
    }

    [Fact]
    public void A_byte_a_letter_a_line_that_names_the_delimiter_and_quotes_are_read()
    {
        var bytes = Encoding.Latin1.GetBytes("sep=;\r\nTag;Modell;Raum\r\nA;\"Petrel; blau \"\"7\"\"\";Büro\r\n");
        var machine = MachineTable.Read(TableText.Of(bytes), Nothing, Today).Machines.Single();
        Assert.Equal(("Petrel; blau \"7\"", "Büro"), (machine.Model, machine.Zone));
    }

    [Fact]
    public void What_is_written_is_read_again_and_no_cell_is_a_formula()
    {
        var service = new ServiceDone(new(2025, 10, 1), ServiceLevel.DustOut);
        var asset = new Asset(
            "=1+1",
            AssetKind.Laptop,
            "@Gannet",
            "Q-1",
            null,
            6.5,
            new(2024, 1, 10),
            null,
            UsualMachines.Parts(AssetKind.Laptop),
            [service]
        );
        var register = new Register([new("Q", "Quay, north", 12, [new("Q-1", "First", DustClass.Heavy, new(32))])], [asset]);
        var written = MachineTableWriter.Write(register);
        Assert.Contains(
            "'=1+1,laptop,'@Gannet,Q,Q-1,heavy,32,12,6.5,2024-01-10,,,2025-10-01,dust-out,100",
            written,
            StringComparison.Ordinal
        );
        var read = Read(written);
        Assert.All(read.Columns, c => Assert.NotEqual(MachineField.Ignore, c.Field));
        var machine = Assert.Single(read.Machines);
        Assert.Equal(("=1+1", "@Gannet", 100), (machine.Tag, machine.Model, machine.LimitCelsius));
        Assert.Equal(2, Read(MachineTableWriter.Template).Machines.Count);
        Assert.Empty(Read(MachineTableWriter.Template).Questions);
    }
}
