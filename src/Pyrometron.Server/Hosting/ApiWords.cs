namespace Pyrometron.Server.Hosting;

/// <summary>What parameters and groups of calls mean that are the same in many calls: said once.</summary>
internal static class ApiWords
{
    private static readonly Dictionary<string, string> Parameters = new(StringComparer.OrdinalIgnoreCase)
    {
        ["tag"] = "The machine's tag.",
        ["asset"] = "The machine's tag; all machines where missing.",
        ["count"] = "How many of the newest.",
        ["skip"] = "How many lines are passed over; none where missing.",
        ["take"] = "How many lines are answered; 100 where missing, 500 at most.",
        ["dryRun"] = "Says what would be taken, and takes nothing.",
        ["Import-Id"] = "A UUID that the caller makes up: GET /imports/{id} tells under it how far the import is.",
        ["asOf"] = "A day (ISO 8601): as it was judged then; now where missing.",
        ["wait"] = "Seconds to wait for the newest data to be judged.",
        ["from"] = "The first day (ISO 8601); from the beginning where missing.",
        ["until"] = "The last day (ISO 8601); to the newest where missing.",
        ["small"] = "A small picture for lists in the place of the whole one.",
        ["key"] = "The photo's UUID.",
        ["service"] = "The service's number.",
        ["phase"] = "Which run is looked for: before or after the service.",
        ["model"] = "The model, as the fleet names it.",
        ["prefer"] = "Which notes stay where both have some: those here, or those of the document.",
        ["after"] = "The number of the last line that the caller has; 0 where missing.",
        ["limit"] = "How many lines at most; 100 where missing, 500 at most.",
        ["text"] = "The text, as it is to be read.",
        ["name"] = "The backup's name.",
    };

    /// <summary>What a number or code in a path names, by the part of the path before it, or the two.</summary>
    private static readonly Dictionary<string, string> Named = new()
    {
        ["jobs"] = "The job's number.",
        ["weeks/jobs"] = "The code of the planned work.",
        ["campaigns"] = "The campaign's number.",
        ["imports"] = "The import's number; where its progress is asked for, the UUID that the caller made up.",
        ["keys"] = "The key's number.",
        ["browsers"] = "The browser's number.",
        ["lots"] = "The lot's number.",
        ["cutting"] = "The number of the cutting plan.",
        ["absences"] = "The absence's number.",
        ["symptoms"] = "The report's number.",
        ["sent"] = "The number of what was sent.",
        ["accounts"] = "The sign-in name.",
        ["zones"] = "The zone's code.",
        ["people"] = "The person's code.",
        ["products"] = "The product's code.",
    };

    private static readonly Dictionary<string, string> Tags = new()
    {
        ["Accounts"] = "Who may sign in, and keys of programs.",
        ["Audit log"] = "Who did what, when and from where.",
        ["Backups"] = "Backups made and laid back; everything in one file.",
        ["Bench"] = "Jobs at the bench: cards, entries, runs, photos.",
        ["Campaigns"] = "Many machines alike, planned as one.",
        ["Demo"] = "The demo beside the house's own data.",
        ["Health"] = "Whether the program answers.",
        ["House"] = "How phones reach the house.",
        ["House rules"] = "When a machine is worth opening, for all and for some.",
        ["Housekeeping"] = "People, keys, sizes, versions and licences.",
        ["Imports"] = "Fleets, readings, services and logs taken in and undone.",
        ["Judgement"] = "How a machine is judged, and what waiting costs.",
        ["Labels"] = "QR codes, and what one that was scanned names.",
        ["Log book"] = "What happened to machines and jobs.",
        ["Machines"] = "Machines with their parts, services, readings and reports.",
        ["Materials"] = "Paste and pads: how much, how thick, which.",
        ["Models"] = "Notes of models.",
        ["Notices"] = "What is new, and who is told of it how.",
        ["Plan"] = "The planner for problems from outside, and the calendar.",
        ["Proof"] = "What work has won.",
        ["Queue"] = "The order of work.",
        ["Stores"] = "Products, lots, shopping and cutting.",
        ["Weeks"] = "Who does what when.",
        ["Zones"] = "Zones, their air and floors.",
    };

    /// <summary>What a parameter means; null where nothing is said of its name.</summary>
    /// <param name="path">Of the call, with the names of its parameters in braces.</param>
    public static string? OfParameter(string path, string name)
    {
        if (Parameters.TryGetValue(name, out var says))
            return says;
        var parts = path.Split('/');
        var at = Array.FindIndex(parts, p => p.StartsWith($"{{{name}", StringComparison.Ordinal));
        return at < 2
            ? null
            : Named.GetValueOrDefault($"{parts[at - 2]}/{parts[at - 1]}") ?? Named.GetValueOrDefault(parts[at - 1]);
    }

    /// <summary>What a group of calls is about.</summary>
    public static string? OfTag(string name) => Tags.GetValueOrDefault(name);
}
