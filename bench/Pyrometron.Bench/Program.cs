using Pyrometron.Bench;

return args switch
{
    ["score", .. var folders] when folders.Length > 0 => ScoreCommand.Run(folders),
    ["speed", var folder] => SpeedCommand.Run(folder),
    _ => Usage(),
};

static int Usage()
{
    Console.Error.WriteLine("usage: score FOLDER …   how well the trial fleets in the folders are judged");
    Console.Error.WriteLine("       speed FOLDER     how fast import, judgement, trend and queue are, on a trial fleet");
    return 2;
}
