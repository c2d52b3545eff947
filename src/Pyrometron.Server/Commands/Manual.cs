using System.CommandLine;
using System.Text;

namespace Pyrometron.Server.Commands;

/// <summary>The manual page of the command line, and its completion in shells: both made from the commands themselves.</summary>
internal static class Manual
{
    /// <summary>Writes the page in the language of man (groff_man(7)).</summary>
    public static Command Page()
    {
        var command = new Command("man", "Writes the manual page; man -l - shows it.");
        command.SetAction(parsed =>
            parsed.InvocationConfiguration.Output.Write(PageOf((RootCommand)parsed.RootCommandResult.Command))
        );
        return command;
    }

    /// <summary>Writes a script by which a shell completes commands and options.</summary>
    public static Command Completion()
    {
        var shell = new Argument<string>("shell") { Description = "bash, zsh or fish." };
        shell.AcceptOnlyFromAmong("bash", "zsh", "fish");
        var command = new Command("completion", "Writes what makes a shell complete commands and options.") { shell };
        command.SetAction(parsed => parsed.InvocationConfiguration.Output.Write(Scripts[parsed.GetValue(shell)!]));
        return command;
    }

    /// <summary>Each asks the program itself by its directive [suggest].</summary>
    private static readonly Dictionary<string, string> Scripts = new()
    {
        ["bash"] = """
            # In ~/.bashrc: source <(pyrometron completion bash)
            _pyrometron() {
              local line=${COMP_LINE#* } at
              at=$((COMP_POINT - ${#COMP_LINE} + ${#line}))
              mapfile -t COMPREPLY < <(pyrometron "[suggest:$at]" "$line" 2>/dev/null)
            }
            complete -o default -F _pyrometron pyrometron

            """,
        ["zsh"] = """
            #compdef pyrometron
            # In ~/.zshrc: source <(pyrometron completion zsh)
            _pyrometron() {
              local line=${BUFFER#* }
              local -a found
              found=("${(@f)$(pyrometron "[suggest:${#line}]" "$line" 2>/dev/null)}")
              compadd -a found || _files
            }
            compdef _pyrometron pyrometron
            # Where it stands among the shell's own functions it was just asked for the first time.
            [ "$funcstack[1]" = _pyrometron ] && _pyrometron "$@"
            true

            """,
        ["fish"] = """
            # In ~/.config/fish/config.fish: pyrometron completion fish | source
            function __pyrometron
                set -l line (string replace -r '^\S+\s+' '' -- (commandline -cp))
                pyrometron "[suggest:"(string length -- "$line")"]" "$line" 2>/dev/null
            end
            complete -c pyrometron -a '(__pyrometron)'

            """,
    };

    private static string PageOf(RootCommand root)
    {
        var page = new StringBuilder();
        page.AppendLine(".TH PYROMETRON 1")
            .AppendLine(".SH NAME")
            .AppendLine("pyrometron \\- tells which machine needs cleaning, repasting or repadding next")
            .AppendLine(".SH SYNOPSIS")
            .AppendLine(".B pyrometron")
            .AppendLine(".I COMMAND")
            .AppendLine("[OPTIONS]")
            .AppendLine(".SH DESCRIPTION")
            .AppendLine(Plain(root.Description!))
            .AppendLine(".SH COMMANDS");
        foreach (var command in root.Subcommands.Where(c => !c.Hidden))
            Describe(page, command, command.Name);
        page.AppendLine(".SH EXIT STATUS")
            .AppendLine("0: done. 1: not done, or what was looked at is not well; why is said. 2: asked wrongly.")
            .AppendLine(".SH ENVIRONMENT")
            .AppendLine(
                "Backup__Folder, Backup__Passphrase, Backup__Hours, Backup__Days, Backup__Weeks, Backup__Months: where backups lie, what"
            )
            .AppendLine("seals them, how often one is made, how many are kept. CertificatePassword: opens the certificate.")
            .AppendLine(".SH FILES")
            .AppendLine(
                "pyrometron.db in the folder that \\-\\-data names holds all; backups lie in the folder backups beside it."
            );
        return page.ToString().ReplaceLineEndings("\n");
    }

    private static void Describe(StringBuilder page, Command command, string name)
    {
        if (command.Subcommands.Count > 0)
        {
            foreach (var below in command.Subcommands)
                Describe(page, below, $"{name} {below.Name}");
            return;
        }
        var arguments = string.Concat(
            command.Arguments.Select(a => $" {a.Name.ToUpperInvariant()}{(a.Arity.MaximumNumberOfValues > 1 ? "..." : "")}")
        );
        page.AppendLine(".TP").AppendLine($".B {Plain(name)}{Plain(arguments)}").AppendLine(Plain(command.Description ?? ""));
        foreach (var argument in command.Arguments)
            page.AppendLine(".RS")
                .AppendLine(".TP")
                .AppendLine($".I {Plain(argument.Name.ToUpperInvariant())}")
                .AppendLine(Plain(argument.Description ?? ""))
                .AppendLine(".RE");
        foreach (var option in command.Options.Where(o => !o.Hidden))
            page.AppendLine(".RS")
                .AppendLine(".TP")
                .AppendLine($".B {Plain(option.Name)}")
                .AppendLine(Plain(option.Description ?? ""))
                .AppendLine(".RE");
    }

    /// <summary>A text as groff prints it: hyphens as typed, and no line that it would take for a request.</summary>
    private static string Plain(string text)
    {
        var escaped = text.Replace(@"\", @"\e", StringComparison.Ordinal).Replace("-", @"\-", StringComparison.Ordinal);
        return escaped.StartsWith('.') || escaped.StartsWith('\'') ? $@"\&{escaped}" : escaped;
    }
}
