using System.Text.Json.Serialization;
using Pyrometron.Core.Assessments;
using Pyrometron.Core.Events;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.GroupEvents;
using Pyrometron.Core.Judging;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Policies;
using Pyrometron.Core.Units;
using Pyrometron.Storage;

namespace Pyrometron.Server.Judging;

/// <summary>The order of work.</summary>
/// <param name="Total">Machines judged.</param>
/// <param name="Counts">Machines by urgency, without those set aside.</param>
/// <param name="SetAside">Machines set aside.</param>
/// <param name="WarmZones">Zones whose room is too warm: to be seen to before any machine.</param>
/// <param name="Events">What happened to many machines at once, the newest first.</param>
/// <param name="NeverMeasured">Machines without a reading or a run: the calendar alone decides on them.</param>
/// <param name="Today">The server's day, UTC; later than <paramref name="AsOf"/> where readings ended long ago.</param>
/// <param name="Currency">Of the items' values.</param>
/// <param name="Precedence">What goes first within one urgency.</param>
/// <param name="Mark">
/// Names this queue; with <c>since</c>, the next call is told only what has changed. Null but for a whole queue.
/// </param>
/// <param name="Since">
/// The mark that was asked with, where <paramref name="Items"/> are only the rows that are new or changed since then, with their
/// ranks in the whole queue; all others stand between them in the order they had. Null where the items are all of them.
/// </param>
/// <param name="Gone">With <paramref name="Since"/>: the machines that left the queue.</param>
public sealed record QueueAnswer(
    DateOnly AsOf,
    IReadOnlyList<QueueItem> Items,
    int Total,
    string Currency,
    Precedence Precedence,
    IReadOnlyDictionary<string, int> Counts,
    int SetAside,
    IReadOnlyList<WarmZone> WarmZones,
    IReadOnlyList<GroupEventAnswer> Events,
    int NeverMeasured,
    DateOnly Today,
    DateTimeOffset? JudgedAt,
    [property: JsonIgnore(Condition = JsonIgnoreCondition.WhenWritingDefault)] bool Pending,
    JudgingProgress? Progress,
    string? Mark = null,
    string? Since = null,
    IReadOnlyList<string>? Gone = null
);

/// <summary>Zones judged so far.</summary>
public sealed record JudgingProgress(int Done, int Of);

/// <summary>A zone that drifts as a whole.</summary>
public sealed record WarmZone(string Code, string Name, double Kelvin, int Machines);

/// <summary>What happened to many machines on one day.</summary>
/// <param name="Kind"><c>readings</c>: a model reports otherwise, taken out; <c>dust</c>: a zone's machines foul
/// together.</param>
/// <param name="Group">The model, or the code of the zone.</param>
/// <param name="Kelvin">By how much a part is warmer, or reads more, since.</param>
/// <param name="UncertaintyKelvin">Its standard uncertainty.</param>
/// <param name="Machines">Tags of the machines that show it.</param>
/// <param name="Says">In plain English.</param>
/// <param name="Message">The same as template and values.</param>
public sealed record GroupEventAnswer(
    GroupEventKind Kind,
    string Group,
    DateOnly Since,
    double Kelvin,
    double UncertaintyKelvin,
    IReadOnlyList<string> Machines,
    string Says,
    Message Message
)
{
    internal static GroupEventAnswer From(GroupEvent e, Places places)
    {
        var says = EventWords.Of(e, e.Kind == GroupEventKind.Dust ? places.ZoneName(e.Group) : e.Group);
        return new(e.Kind, e.Group, UnixDay.DateOf(e.Day), e.Kelvin, e.SigmaKelvin, e.Members, says.ToString(), says);
    }
}

/// <summary>What the headroom strip shows, °C, for the part nearest to its limit.</summary>
/// <param name="Ambient">Intake air now.</param>
/// <param name="Fresh">After its last service, at today's air.</param>
/// <param name="Now">Today.</param>
/// <param name="Heading">At design ambient, full fan.</param>
/// <param name="Line">The action line.</param>
public sealed record Strip(string Part, double Ambient, double Fresh, double Now, double Heading, double Line, double Limit);

/// <summary>Why a machine is out of the queue for a while.</summary>
public sealed record SetAsideAnswer(string Reason, DateOnly Until);

/// <summary>What the maker's warranty means for the work advised.</summary>
/// <param name="OpenableFrom">From when on the house opens it without asking.</param>
/// <param name="Wait">Whether that is so near that it is better to wait for it.</param>
/// <param name="Says">In plain English.</param>
/// <param name="Message">The same as template and values.</param>
public sealed record WarrantyAnswer(DateOnly Until, DateOnly OpenableFrom, bool Wait, string Says, Message Message)
{
    internal static WarrantyAnswer? From(WarrantyAdvice? advice) =>
        advice is null ? null : new(advice.Until, advice.OpenableFrom, advice.Wait, advice.Says.ToString(), advice.Says);
}

/// <summary>A run worth making.</summary>
/// <param name="WhatMessage">The same as template and values.</param>
/// <param name="WhyMessage">The same as template and values.</param>
public sealed record RunToMakeAnswer(string What, int Minutes, string Why, Message WhatMessage, Message WhyMessage)
{
    internal static RunToMakeAnswer? From(RunToMake? run) =>
        run is null ? null : new(run.What.ToString(), run.Minutes, run.Why.ToString(), run.What, run.Why);
}

/// <summary>Readings that used to come and have stopped.</summary>
/// <param name="Since">Day of the last one.</param>
/// <param name="Days">From then to the day judged.</param>
/// <param name="Reporting">Machines of its zone that have sent readings since.</param>
/// <param name="Says">In plain English.</param>
/// <param name="Message">The same as template and values.</param>
public sealed record SilenceAnswer(DateOnly Since, int Days, int Reporting, string Says, Message Message)
{
    internal static SilenceAnswer? From(Silence? silence) =>
        silence is null ? null : new(silence.Since, silence.Days, silence.Reporting, silence.Says.ToString(), silence.Says);
}

/// <summary>A machine's job in hand.</summary>
public sealed record OpenJob(long Id, string State);

/// <summary>One machine of the queue.</summary>
/// <param name="DriftKelvin">What service could win back on the worst part.</param>
/// <param name="DriftUncertaintyKelvin">Standard uncertainty of it.</param>
/// <param name="NeedsWorkProbability">The chance that it needs work; null where nothing was measured that tells.</param>
/// <param name="Measure">The run that would tell most, where this is the machine to make it on; else null.</param>
/// <param name="ValuePerHour">
/// Net value of the advised service for an hour of work, in the house's currency; null where nothing is to win.
/// </param>
/// <param name="AsOf">
/// As of when this machine is judged, where that is later than the queue: it was worked on since; else null.
/// </param>
/// <param name="MeasuredAt">When it was measured last.</param>
/// <param name="MeasuredBy"><c>run</c> or <c>readings</c>.</param>
/// <param name="ReasonMessage">The reason as template and values.</param>
/// <param name="Warranty">What the maker's warranty means for the work advised; null where it means nothing.</param>
/// <param name="Silence">Its readings, where they used to come and have stopped; else null.</param>
/// <param name="Host">The machine that it is built into; null for none.</param>
/// <param name="Place">Where it stands on its zone's floor plan; null where nobody has said.</param>
public sealed record QueueItem(
    int Rank,
    string Asset,
    Urgency Urgency,
    Cause Cause,
    double? DriftKelvin,
    double? DriftUncertaintyKelvin,
    double? NeedsWorkProbability,
    RunToMakeAnswer? Measure,
    DateOnly? ActionDate,
    DateOnly? ActionDateEarly,
    DateOnly? ActionDateLate,
    ServiceLevel? Service,
    int? Minutes,
    EvidenceGrade? Evidence,
    string Reason,
    AssetKind Kind,
    string Model,
    string Zone,
    string ZoneName,
    string Site,
    DateOnly? Due,
    bool ByCalendar,
    double? ValuePerHour,
    bool UnderWarranty,
    Strip? Strip,
    SetAsideAnswer? SetAside,
    OpenJob? Job,
    DateOnly? AsOf,
    DateTimeOffset? MeasuredAt,
    string? MeasuredBy,
    Message ReasonMessage,
    WarrantyAnswer? Warranty,
    SilenceAnswer? Silence,
    string? Host,
    FloorPlace? Place
)
{
    /// <summary>Beside its row's neighbours: where it stands, and what is in hand on it.</summary>
    /// <param name="FleetDay">As of when the queue is.</param>
    internal sealed record Surroundings(Places Places, DateOnly FleetDay, SetAside? Aside, StoredJob? Job);

    internal static QueueItem From(Assessment a, int rank, Surroundings at) =>
        new(
            rank,
            a.Asset.Tag,
            a.Urgency,
            a.Cause,
            Round(a.DriftKelvin),
            Round(a.WorstPart?.SigmaKelvin),
            a.NeedsWorkProbability,
            RunToMakeAnswer.From(a.Measure),
            a.Action?.Day,
            a.Action?.Early,
            a.Action?.Late,
            a.Service,
            a.Minutes,
            a.Evidence,
            a.Reason.ToString(),
            a.Asset.Kind,
            a.Asset.Model,
            a.Asset.Zone,
            at.Places.ZoneName(a.Asset.Zone),
            at.Places.SiteOf(a.Asset.Zone),
            a.ServiceDue?.Due,
            a.ByCalendar,
            Round(a.Advised?.PerHour),
            a.Asset.UnderWarranty(a.AsOf),
            StripOf(a),
            at.Aside is { } aside ? new SetAsideAnswer(aside.Reason, aside.Until) : null,
            at.Job is { } job ? new OpenJob(job.Id, Words.Of(job.State)) : null,
            a.AsOf == at.FleetDay ? null : a.AsOf,
            AssessmentAnswer.At(a.MeasuredDay),
            AssessmentAnswer.By(a),
            a.Reason,
            WarrantyAnswer.From(a.Warranty),
            SilenceAnswer.From(a.Silence),
            a.Asset.HostTag,
            a.Asset.Place
        );

    private static Strip? StripOf(Assessment a)
    {
        // The part that makes the case: the one with most to win where there is anything, else the one nearest to its limit.
        if ((a.DriftKelvin >= 1 ? a.WorstPart : a.LimitingPart) is not { } part || double.IsNaN(part.LatestC))
            return null;
        var ambient = a.AmbientNowC;
        var fresh = part.LatestC - part.Split.Total;
        return new Strip(
            part.Part.Name,
            Math.Round(ambient, 1),
            Math.Round(fresh, 1),
            Math.Round(part.LatestC, 1),
            Math.Round(part.HottestC, 1),
            Math.Round(part.HottestC + part.MarginKelvin, 1),
            part.Part.Limit.Value
        );
    }

    internal static double? Round(double? value) => value is { } v ? Math.Round(v, 2) : null;
}

/// <summary>Names of zones and sites by code.</summary>
internal sealed class Places
{
    private readonly Dictionary<string, (string Zone, string Site)> _byZone;

    private Places(Dictionary<string, (string, string)> byZone) => _byZone = byZone;

    public static Places Of(IEnumerable<Site> sites) =>
        new(sites.SelectMany(s => s.Zones, (s, z) => (z.Code, (z.Name, s.Code))).ToDictionary());

    public bool HasZone(string code) => _byZone.ContainsKey(code);

    public string ZoneName(string code) => _byZone.TryGetValue(code, out var place) ? place.Zone : code;

    public string SiteOf(string code) => _byZone.TryGetValue(code, out var place) ? place.Site : "";
}
