using System.Globalization;
using System.Threading.Channels;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Readings;
using Pyrometron.Formats.Csv;
using Pyrometron.Storage;

namespace Pyrometron.Application.Imports;

/// <summary>
/// Takes one readings file: one thread reads and checks lines, another stores the batches before it, each batch in a
/// transaction of its own. What was stored when it is broken off stays, and sending the file again adds the rest.
/// </summary>
public sealed class ReadingsImport(
    Database database,
    Actor actor,
    DateTimeOffset now,
    int mostListed,
    CsvDelimiter delimiter = CsvDelimiter.Comma
)
{
    private const int BatchLines = 10_000,
        BatchesAhead = 2;

    /// <summary>The import that all batches belong to; null before the first.</summary>
    private long? _import;

    private readonly Tally _tally = new(mostListed);

    private sealed record Batch(
        List<(string Tag, Reading Reading)> Readings,
        List<int> Lines,
        List<ReadingLine> Refused,
        long Bytes
    );

    /// <summary>Runs the import to its end.</summary>
    /// <param name="progress">Told after each batch: bytes read and lines dealt with.</param>
    /// <exception cref="NotAllowedException">The actor may not.</exception>
    /// <exception cref="Formats.RefusedInputException">It is no readings file at all.</exception>
    public async Task<ImportAnswer> RunAsync(Stream file, Action<long, long> progress, CancellationToken cancellation)
    {
        var fleet = new FleetStore(database);
        actor.Allowed(Right.Work);
        var site = fleet.Sites().SelectMany(s => s.Zones.Select(z => (z.Code, Site: s.Code))).ToDictionary();
        // Machines of sites that are not the actor's are as unknown to them as those that are not there.
        var assets = fleet.All().Where(a => actor.Rights.Reach(site[a.Asset.Zone])).ToDictionary(a => a.Asset.Tag);
        var names = assets.ToDictionary(a => a.Key, a => (IReadOnlyList<string>)[.. a.Value.Asset.Parts.Select(p => p.Name)]);
        var csv = new ReadingsCsv(names.GetValueOrDefault, now, delimiter);
        var batches = Channel.CreateBounded<Batch>(BatchesAhead);
        using var broken = CancellationTokenSource.CreateLinkedTokenSource(cancellation);
        var reading = Task.Run(() => ReadAsync(csv, file, batches.Writer, broken.Token), CancellationToken.None);
        try
        {
            await foreach (var batch in batches.Reader.ReadAllAsync(cancellation))
            {
                try
                {
                    Store(batch, assets, cancellation);
                }
                catch (Exception error) when (StorageFailure.Of(error) is not null)
                {
                    throw new ImportBrokenOffException(_tally.Accepted, error);
                }
                progress(batch.Bytes, _tally.Lines);
            }
        }
        finally
        {
            // The file belongs to the caller: whoever reads it must have let go before this returns.
            await broken.CancelAsync();
            await reading.ContinueWith(_ => { }, CancellationToken.None, TaskContinuationOptions.None, TaskScheduler.Default);
        }
        await reading;
        return _tally.Answer(csv.Warnings);
    }

    private static async Task ReadAsync(ReadingsCsv csv, Stream file, ChannelWriter<Batch> writer, CancellationToken cancellation)
    {
        try
        {
            var batch = new Batch([], [], [], 0);
            foreach (var line in csv.Read(file))
            {
                if (line.Reading is { } taken)
                {
                    batch.Readings.Add((line.Asset, taken));
                    batch.Lines.Add(line.Line);
                }
                else
                    batch.Refused.Add(line);
                if (batch.Readings.Count + batch.Refused.Count < BatchLines)
                    continue;
                await writer.WriteAsync(batch with { Bytes = csv.BytesRead }, cancellation);
                batch = new Batch([], [], [], 0);
            }
            await writer.WriteAsync(batch with { Bytes = csv.BytesRead }, cancellation);
            writer.Complete();
        }
        catch (Exception error)
        {
            writer.TryComplete(error);
        }
    }

    private void Store(Batch batch, Dictionary<string, StoredAsset> assets, CancellationToken cancellation)
    {
        foreach (var line in batch.Refused)
            _tally.Refuse(line.Line, line.Problem!.Column, line.Problem.Says);
        if (batch.Readings.Count == 0)
            return;
        var fates = new ReadingFate[batch.Readings.Count];
        _import = database.Write<long?>(
            actor,
            now,
            t =>
            {
                var import = _import ?? ImportStore.Begin(t, ImportKind.Readings);
                ReadingStore.Add(t, batch.Readings, assets, (i, fate) => fates[i] = fate, import);
                var stored = fates
                    .Select((fate, i) => (fate, batch.Readings[i].Tag))
                    .Where(f => f.fate == ReadingFate.Stored)
                    .Select(f => f.Tag)
                    .ToHashSet();
                var touched = stored.Select(tag => assets[tag].Id).ToArray();
                ImportStore.Add(t, import, fates.Count(fate => fate == ReadingFate.Stored), 0, touched);
                if (stored.Count > 0)
                    t.Log(
                        new Change(
                            "import",
                            Message.Of("Readings imported: {lines}", Value.Counted("lines", batch.Readings.Count, "line"))
                        )
                        {
                            Touches = touched,
                        }
                    );
                return import;
            },
            cancellation
        );
        // Counted once the batch is on disk.
        for (var i = 0; i < fates.Length; i++)
        {
            Count(batch, i, fates[i]);
            if (fates[i] == ReadingFate.Stored && assets[batch.Readings[i].Tag].RetiredOn is { } on)
                _tally.NoteRetired(batch.Readings[i].Tag, on);
        }
    }

    private void Count(Batch batch, int i, ReadingFate fate)
    {
        var (tag, sent) = batch.Readings[i];
        var at = DateTimeOffset
            .FromUnixTimeMilliseconds(sent.UnixMilliseconds)
            .ToString("yyyy-MM-dd'T'HH:mm:ss'Z'", CultureInfo.InvariantCulture);
        if (fate == ReadingFate.Conflict)
            _tally.Refuse(
                batch.Lines[i],
                null,
                $"{tag} at {at} is stored already with other values; the first stays. Correct it on the machine's page."
            );
        else if (fate == ReadingFate.TooManyLabels)
            _tally.Refuse(
                batch.Lines[i],
                null,
                $"There are {ReadingStore.MostLabels:#,0} different settings and workloads already; give alike ones the same name."
            );
        else if (fate == ReadingFate.Duplicate)
            _tally.Duplicates++;
        else
            _tally.Accepted++;
    }
}
