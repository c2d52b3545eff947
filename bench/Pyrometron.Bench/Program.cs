using Pyrometron.Bench;

return args switch
{
    ["score", .. var folders] when folders.Length > 0 => ScoreCommand.Run(folders),
    ["vary", .. var folders] when folders.Length > 0 => VaryCommand.Run(folders),
    ["invent" or "invent-rough", var first, var count]
        when int.TryParse(first, out var seed) && int.TryParse(count, out var fleets) && fleets > 0 => InventCommand.Run(
        seed,
        fleets,
        rough: args[0] == "invent-rough"
    ),
    ["speed", var folder] => SpeedCommand.Run(folder),
    ["large", var folder, var machines] when int.TryParse(machines, out var count) && count > 0 => LargeCommand.Run(
        folder,
        count
    ),
    ["fuzz", var first, var requests]
        when int.TryParse(first, out var seed) && int.TryParse(requests, out var count) && count > 0 => FuzzCommand.Run(
        seed,
        count
    ),
    ["plan", var first, var weeks, var time]
        when int.TryParse(first, out var seed)
            && int.TryParse(weeks, out var count)
            && count > 0
            && int.TryParse(time, out var seconds) => PlanCommand.Run(seed, count, seconds),
    ["plan-large", var first, var jobs, var time]
        when int.TryParse(first, out var seed)
            && int.TryParse(jobs, out var count)
            && count > 0
            && int.TryParse(time, out var seconds) => PlanCommand.RunLarge(seed, count, seconds),
    ["cut", var first, var plans] when int.TryParse(first, out var seed) && int.TryParse(plans, out var count) && count > 0 =>
        CutCommand.Run(seed, count),
    ["spread"] => SpreadCommand.Run(),
    ["messages", var folder] => MessagesCommand.Run(folder),
    _ => Usage(),
};

static int Usage()
{
    Console.Error.WriteLine("usage: score FOLDER …   how well the trial fleets in the folders are judged");
    Console.Error.WriteLine("       vary FOLDER …    the same with the fleets made harder and the method made poorer");
    Console.Error.WriteLine("       invent SEED N    the same on N fleets invented from SEED on, which nobody has looked at");
    Console.Error.WriteLine("       invent-rough SEED N    the same with poor data: scatter, jumps, firmware, building dust");
    Console.Error.WriteLine("       speed FOLDER     how fast import, judgement, trend and queue are, on a trial fleet");
    Console.Error.WriteLine("       large FOLDER N   how long, and in how much memory, N machines are judged from a database");
    Console.Error.WriteLine(
        "       fuzz SEED N      N requests made by chance against a server: no fault, bounded memory, nothing hangs"
    );
    Console.Error.WriteLine(
        "       plan SEED N S    N made-up weeks planned in S seconds each: how near they come to their bound"
    );
    Console.Error.WriteLine("       plan-large SEED N S    N jobs, and hands for them, planned in S seconds");
    Console.Error.WriteLine(
        "       cut SEED N       N made-up sets of 300 pads cut from sheets: how near the plans come to their bound"
    );
    Console.Error.WriteLine("       spread           how long a picture of paste under a cooler takes");
    Console.Error.WriteLine("       messages ROOT    writes the server's messages down for the languages of the front end");
    return 2;
}
