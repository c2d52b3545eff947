using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;
using Pyrometron.Core.Units;
using Pyrometron.Formats;
using Pyrometron.Formats.Tables;

namespace Pyrometron.Application.Imports;

/// <summary>Something that a table did not say and that was put in.</summary>
/// <param name="Machines">For how many machines, or zones and sites where it is theirs.</param>
public sealed record TableDefault(string Field, string Value, int Machines);

/// <summary>
/// Makes a register of a table's machines: what a line does not say stays as it is, comes from the house's other machines of the
/// model, or is what is usual for the kind; every such thing is named.
/// </summary>
/// <param name="here">The register as it stands.</param>
/// <param name="today">UTC.</param>
public sealed class TableImport(Register here, DateOnly today)
{
    private const int MostQuestions = 30;

    private readonly Dictionary<string, Asset> _known = here.Assets.ToDictionary(a => a.Tag);
    private readonly Dictionary<string, Asset> _models = here
        .Assets.GroupBy(a => a.Model)
        .ToDictionary(g => g.Key, g => g.First());
    private readonly TablePlaces _places = new(here.Sites);
    private readonly List<InputProblem> _refused = [];
    private readonly Dictionary<string, InputQuestion> _questions = [];
    private readonly Dictionary<(string, string), int> _defaults = [];

    /// <summary>Lines that cannot be taken as the house stands.</summary>
    public IReadOnlyList<InputProblem> Refused => _refused;

    /// <summary>What has to be said of machines or their models.</summary>
    public IReadOnlyCollection<InputQuestion> Questions => _questions.Values;

    /// <summary>What was put in.</summary>
    public IReadOnlyList<TableDefault> Defaults =>
        [.. _defaults.Select(d => new TableDefault(d.Key.Item1, d.Key.Item2, d.Value)), .. _places.Defaults];

    /// <summary>The machines of the table, with the sites that they stand in.</summary>
    /// <param name="words">What somebody has settled of models' kinds.</param>
    public Register Make(IReadOnlyList<TableMachine> machines, IReadOnlyDictionary<string, string> words)
    {
        var listed = machines.Select(m => m.Tag).ToHashSet();
        var assets = new List<Asset>();
        foreach (var machine in machines)
        {
            if (machine.HostTag is { } host && (host == machine.Tag || !listed.Contains(host) && !_known.ContainsKey(host)))
                Refuse(machine, MachineField.HostTag, $"'{host}' is no other machine of the table or the house.");
            else if (KindOf(machine, words) is not { } kind)
                AskKind(machine);
            else
                assets.Add(Of(machine, kind));
        }
        // A machine whose host was refused cannot stand either.
        var taken = assets.Select(a => a.Tag).ToHashSet();
        var good = assets.Where(a => a.HostTag is not { } h || taken.Contains(h) || _known.ContainsKey(h)).ToArray();
        foreach (var lost in assets.Except(good))
            Refuse(machines.First(m => m.Tag == lost.Tag), MachineField.HostTag, $"Its host '{lost.HostTag}' was refused.");
        return new Register(_places.Used, good);
    }

    private void AskKind(TableMachine machine)
    {
        if (machine.Model is not { } model)
        {
            Refuse(machine, MachineField.Kind, "The line says neither a kind nor a model; one of them is needed.");
            return;
        }
        Refuse(
            machine,
            MachineField.Kind,
            $"Whether '{MachineTable.Short(model)}' is a desktop, laptop, server or graphics card is not known; say which."
        );
        if (_questions.Count < MostQuestions)
            _questions.TryAdd(
                model,
                InputQuestion.Of(
                    model,
                    $"What kind of machine is '{MachineTable.Short(model)}'?",
                    [.. Enum.GetValues<AssetKind>().Select(Words.Of)]
                )
            );
    }

    private AssetKind? KindOf(TableMachine m, IReadOnlyDictionary<string, string> words) =>
        m.Kind
        ?? _known.GetValueOrDefault(m.Tag)?.Kind
        ?? (
            m.Model is { } model
                ? _models.GetValueOrDefault(model)?.Kind ?? Said(model, words) ?? TableMeanings.KindIn(model)
                : null
        );

    private static AssetKind? Said(string model, IReadOnlyDictionary<string, string> words) =>
        Words.TryRead<AssetKind>(words.GetValueOrDefault(TableMeanings.KeyOf(model)), out var kind) ? kind : null;

    private Asset Of(TableMachine m, AssetKind kind)
    {
        var known = _known.GetValueOrDefault(m.Tag);
        var model = m.Model ?? known?.Model ?? Default("model", $"{Words.Of(kind)}, model not known");
        var like = known ?? _models.GetValueOrDefault(model);
        var parts = like is { } l && l.Kind == kind ? l.Parts : Default("parts", kind, UsualMachines.Parts(kind));
        if (m.LimitCelsius is { } limit)
            parts = [parts[0] with { Limit = new Celsius(limit) }, .. parts.Skip(1)];
        return new Asset(
            m.Tag,
            kind,
            model,
            _places.ZoneOf(m, known?.Zone),
            m.HostTag ?? known?.HostTag,
            m.DutyHoursPerDay ?? known?.DutyHoursPerDay ?? Default("dutyHoursPerDay", UsualMachines.DutyHours(kind)),
            m.InServiceSince ?? known?.InServiceSince ?? Began(m),
            m.WarrantyUntil ?? known?.WarrantyUntil,
            parts,
            ServicesOf(m, known)
        );
    }

    private IReadOnlyList<ServiceDone> ServicesOf(TableMachine m, Asset? known)
    {
        IReadOnlyList<ServiceDone> services = known?.Services ?? [];
        if (m.LastServiceDate is not { } day)
            return services;
        var level = m.LastServiceLevel ?? Default("lastServiceLevel", Words.Of(ServiceLevel.DustOut), ServiceLevel.DustOut);
        var service = new ServiceDone(day, level);
        return services.Any(s => s.IsSameAs(service)) ? services : [.. services.Append(service).OrderBy(s => s.Day)];
    }

    /// <summary>When it came into use: before its last service, a usual warranty before that ends, or some years ago.</summary>
    private DateOnly Began(TableMachine m)
    {
        var (day, why) =
            m.WarrantyUntil is { } end && end.AddYears(-UsualMachines.WarrantyYears) is var bought && bought <= today
                ? (bought, "three years before its warranty ends")
                : (today.AddYears(-UsualMachines.YearsInUse), "two years ago");
        if (m.LastServiceDate is { } served && served < day)
            (day, why) = (served, "the day of its last service");
        Count("inServiceSince", why);
        return day;
    }

    private void Refuse(TableMachine machine, MachineField field, Message message) =>
        _refused.Add(new InputProblem(message, machine.Line, MachineTable.NameOf(field)));

    private string Default(string field, string value)
    {
        Count(field, value);
        return value;
    }

    private double Default(string field, double value)
    {
        Count(field, value.ToString(System.Globalization.CultureInfo.InvariantCulture));
        return value;
    }

    private T Default<T>(string field, string said, T value)
    {
        Count(field, said);
        return value;
    }

    private IReadOnlyList<Part> Default(string field, AssetKind kind, IReadOnlyList<Part> parts)
    {
        Count(
            field,
            $"{Words.Of(kind)}: "
                + string.Join(", ", parts.Select(p => FormattableString.Invariant($"{p.Name} {p.Limit.Value:0} °C")))
        );
        return parts;
    }

    private void Count(string field, string value) => _defaults[(field, value)] = _defaults.GetValueOrDefault((field, value)) + 1;
}
