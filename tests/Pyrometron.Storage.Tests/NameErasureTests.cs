using Pyrometron.Core.Events;
using Pyrometron.Core.Messages;

namespace Pyrometron.Storage.Tests;

/// <summary>A person's name goes, what they did stays.</summary>
public sealed class NameErasureTests : IDisposable
{
    private static readonly DateTimeOffset Now = new(2026, 3, 2, 9, 0, 0, TimeSpan.Zero);

    private readonly TemporaryDatabase _house = new();

    public void Dispose() => _house.Dispose();

    private static Actor Somebody(string name) => new(ActorKind.Person, name) { Rights = Rights.All, Address = "10.0.0.9" };

    private void Log(string by, string note, string? before = null) =>
        _house.Database.Write(
            Somebody(by),
            Now,
            t =>
                t.Log(
                    new Change("notes", Message.Of("Note for {who}: {note}", Value.Text("who", by), Value.Text("note", note)))
                    {
                        Before = before,
                    }
                )
        );

    private ErasedName Erase(string name) =>
        _house.Database.Write(Somebody("Keeper"), Now.AddDays(1), t => NameErasure.Erase(t, name));

    private AuditChain Chain => new AuditStore(_house.Database).Follow(CancellationToken.None);

    private List<string> All(string sql)
    {
        using var connection = _house.Database.Connect();
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        var rows = new List<string>();
        while (reader.Read())
            rows.Add(reader.IsDBNull(0) ? "" : reader.GetString(0));
        return rows;
    }

    /// <summary>Everything that stands in the database as text, but for what is named.</summary>
    private string AllText() =>
        string.Join("\n", TextColumns().SelectMany(c => All($"SELECT \"{c.Column}\" FROM \"{c.Table}\"")));

    private List<(string Table, string Column)> TextColumns() =>
        [
            .. All(
                    """
                    SELECT s.name || '.' || c.name FROM sqlite_schema s JOIN pragma_table_info(s.name) c
                    WHERE s.type = 'table' AND c.type = 'TEXT'
                    """
                )
                .Select(c => (c.Split('.')[0], c.Split('.')[1])),
        ];

    [Fact]
    public void A_name_goes_out_of_the_log_and_what_was_done_stays()
    {
        Log("Odo Quill", "the fan that Odo Quill heard");
        Log("Someone else", "nothing");
        Log("Odo Quill", "again", before: """{"by":"Odo Quill","note":"asked Odo Quill, not Odo Quillon"}""");
        var before = Chain;
        var erased = Erase("Odo Quill");
        Assert.Equal("erased person 1", erased.As);
        Assert.Equal(2, erased.Lines);
        Assert.Equal(before.Last, erased.Hash);
        var text = AllText();
        Assert.DoesNotContain("Odo Quill\n", text, StringComparison.Ordinal);
        Assert.Contains(
            """{"by":"erased person 1","note":"asked erased person 1, not Odo Quillon"}""",
            text,
            StringComparison.Ordinal
        );
        Assert.Contains("Note for erased person 1: the fan that erased person 1 heard", text, StringComparison.Ordinal);
        Assert.Contains("Note for Someone else: nothing", text, StringComparison.Ordinal);
        // The fleet came in first, by the program, and counts as before; the address goes with the name, others' stay.
        Assert.Equal(before.Lines, Chain.Lines);
        Assert.Null(Chain.FirstBroken);
        Assert.NotEqual(before.Last, Chain.Last);
        Assert.Equal(["10.0.0.9"], All("SELECT address FROM change WHERE address IS NOT NULL"));
    }

    [Fact]
    public void The_chain_goes_on_behind_it_and_a_second_person_gets_another_number()
    {
        Log("Odo Quill", "one");
        Log("Ada Fenn", "two");
        Assert.Equal("erased person 1", Erase("Odo Quill").As);
        Log("Ada Fenn", "three");
        Assert.Null(Chain.FirstBroken);
        Assert.Equal("erased person 2", Erase("Ada Fenn").As);
        Assert.Null(Chain.FirstBroken);
        Assert.DoesNotContain(NameErasure.Names(_house.Database), n => n.Name is "Odo Quill" or "Ada Fenn");
    }

    [Fact]
    public void Nobody_whose_name_is_nowhere_in_it_has_the_log_written_anew()
    {
        Log("Ada Fenn", "one");
        var before = Chain;
        var erased = Erase("Odo Quill");
        Assert.Equal((0, null, 0), (erased.Lines, erased.Hash, erased.Records));
        Assert.Equal(before, Chain);
    }

    [Fact]
    public void A_name_that_is_a_word_of_the_program_changes_no_record()
    {
        // Somebody signs as "dust": the kinds, causes and templates of records are not theirs.
        Log("dust", "much dust", before: """{"cause":"dust","by":"dust","note":"dust again"}""");
        Erase("dust");
        Assert.Contains("""{"cause":"dust","by":"erased person 1","note":"dust again"}""", AllText(), StringComparison.Ordinal);
        Assert.Contains("Note for erased person 1: much dust", AllText(), StringComparison.Ordinal);
        Assert.Null(Chain.FirstBroken);
    }

    [Fact]
    public void A_template_is_never_changed()
    {
        Log("Note", "by Note");
        Erase("Note");
        Assert.Contains("\"template\":\"Note for {who}: {note}\"", AllText(), StringComparison.Ordinal);
    }

    [Fact]
    public void What_was_typed_elsewhere_loses_the_name_too()
    {
        var machine = _house.Fleet.Find("GC-1")!;
        _house.Database.Write(
            Somebody("Ada Fenn"),
            Now,
            t => SymptomStore.Add(t, machine.Id, new Symptom(new DateOnly(2026, 3, 1), SymptomKind.Noise, "Odo Quill heard it"))
        );
        var erased = Erase("Odo Quill");
        Assert.Equal(1, erased.Records);
        Assert.Equal(["erased person 1 heard it"], All("SELECT note FROM symptom"));
    }

    [Fact]
    public void Every_column_of_text_is_looked_through_or_holds_no_names_of_people()
    {
        // Codes, dates, names of things; and what goes with the account, or is written anew with the log.
        var others = new HashSet<string>(
            File.ReadAllLines(Path.Combine(AppContext.BaseDirectory, "columns-without-people.txt")).Where(l => l.Length > 0)
        );
        var looked = NameErasure.Searched.Select(s => $"{s.Table}.{s.Column}").ToHashSet();
        var all = TextColumns().Select(c => $"{c.Table}.{c.Column}").ToHashSet();
        Assert.Empty(all.Except(looked).Except(others).Order());
        Assert.Empty(looked.Union(others).Except(all).Order());
        Assert.Empty(looked.Intersect(others));
    }
}
