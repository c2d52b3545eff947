using Pyrometron.Bench;

return args switch
{
    ["score", .. var folders] => ScoreCommand.Run(folders),
    _ => Usage(),
};

static int Usage()
{
    Console.Error.WriteLine("usage: score [trial folder …]");
    return 2;
}
