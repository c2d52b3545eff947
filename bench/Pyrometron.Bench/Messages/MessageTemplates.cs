using System.Reflection;
using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;
using Pyrometron.Core.Fleet;
using Pyrometron.Core.Messages;

namespace Pyrometron.Bench.Messages;

/// <summary>One text of the server for the catalogues of the front end.</summary>
/// <param name="Id">Its key: the English template, or the word of the API.</param>
/// <param name="Message">The English, in ICU message format.</param>
/// <param name="Origin">The source file, from the root of the repository.</param>
public sealed record Template(string Id, string Message, string Origin);

/// <summary>
/// Reads the templates of all <see cref="Message"/>s out of the server's sources: each constant that becomes a message by
/// itself, and each that is given to a parameter named <c>template</c>; what stands between the messages of a list; the nouns
/// that are counted; the API's words.
/// </summary>
public static class MessageTemplates
{
    /// <summary>Of methods, and of positional records, whose member of that name begins with a capital.</summary>
    private const string TemplateParameter = "template";

    /// <summary>All of them, in order of their keys.</summary>
    /// <param name="root">The root of the repository; its projects must have been built.</param>
    public static IReadOnlyList<Template> Of(string root)
    {
        var trees = Sources(root).Select(file => CSharpSyntaxTree.ParseText(File.ReadAllText(file), path: file)).ToArray();
        var compilation = CSharpCompilation.Create("sources", trees, References());
        var found = new SortedDictionary<string, Template>(StringComparer.Ordinal);
        foreach (var word in ApiWords())
            found[word.Id] = word;
        foreach (var tree in trees)
        foreach (var template in In(compilation.GetSemanticModel(tree), tree, Path.GetRelativePath(root, tree.FilePath)))
            found[template.Id] = template;
        return [.. found.Values];
    }

    /// <summary>A template in ICU message format, in which an apostrophe is doubled.</summary>
    public static string Icu(string template) => template.Replace("'", "''", StringComparison.Ordinal);

    private static IEnumerable<string> Sources(string root) =>
        Directory
            .EnumerateFiles(Path.Combine(root, "src"), "*.cs", SearchOption.AllDirectories)
            .Where(file =>
                !file.Contains("/obj/", StringComparison.Ordinal) && !file.Contains("/bin/", StringComparison.Ordinal)
                || file.Contains("/obj/Release/", StringComparison.Ordinal)
                    && file.EndsWith(".GlobalUsings.g.cs", StringComparison.Ordinal)
            )
            .Order(StringComparer.Ordinal);

    /// <summary>What the program itself runs with, without its own assemblies: those are the sources.</summary>
    private static IEnumerable<MetadataReference> References() =>
        ((string)AppContext.GetData("TRUSTED_PLATFORM_ASSEMBLIES")!)
            .Split(Path.PathSeparator)
            .Where(file => !Path.GetFileName(file).StartsWith("Pyrometron.", StringComparison.Ordinal))
            .Select(file => MetadataReference.CreateFromFile(file));

    private static IEnumerable<Template> In(SemanticModel model, SyntaxTree tree, string origin)
    {
        var root = tree.GetRoot();
        foreach (var expression in root.DescendantNodes().OfType<ExpressionSyntax>().Where(MayBeText))
            if (model.GetConversion(expression) is { IsUserDefined: true, MethodSymbol.ContainingType.Name: nameof(Message) })
                foreach (var template in Constants(expression, model))
                    yield return new(Icu(template), Icu(template), origin);
        foreach (var argument in root.DescendantNodes().OfType<ArgumentSyntax>().Where(a => MayBeText(a.Expression)))
        {
            if (Parameter(argument, model) is not { } parameter)
                continue;
            if (parameter.Name.Equals(TemplateParameter, StringComparison.OrdinalIgnoreCase))
                foreach (var template in Constants(argument.Expression, model))
                    yield return new(Icu(template), Icu(template), origin);
            if (parameter is { Name: "between", ContainingSymbol.Name: nameof(Value.List) })
                foreach (var between in Constants(argument.Expression, model).Where(b => b.Any(char.IsLetter)))
                    yield return new(Icu(between), Icu(between), origin);
            if (parameter is { Name: "noun", ContainingSymbol.Name: nameof(Value.Counted) })
                foreach (var noun in Constants(argument.Expression, model))
                    yield return new($"# {noun}", $"{{n, plural, one {{# {noun}}} other {{# {noun}s}}}}", origin);
        }
    }

    /// <summary>Whether it is worth asking what an expression means: most of them cannot be a constant text.</summary>
    private static bool MayBeText(ExpressionSyntax expression) =>
        expression switch
        {
            LiteralExpressionSyntax literal => literal.IsKind(SyntaxKind.StringLiteralExpression),
            ParenthesizedExpressionSyntax inner => MayBeText(inner.Expression),
            ConditionalExpressionSyntax choice => MayBeText(choice.WhenTrue) || MayBeText(choice.WhenFalse),
            SwitchExpressionSyntax choice => choice.Arms.Any(arm => MayBeText(arm.Expression)),
            BinaryExpressionSyntax sum => sum.IsKind(SyntaxKind.AddExpression) && MayBeText(sum.Left),
            // The name of a constant.
            IdentifierNameSyntax { Parent: not (MemberAccessExpressionSyntax or QualifiedNameSyntax or TypeSyntax) } name =>
                char.IsUpper(name.Identifier.Text[0]),
            _ => false,
        };

    private static IParameterSymbol? Parameter(ArgumentSyntax argument, SemanticModel model) =>
        argument.Parent?.Parent is { } call
        && model.GetSymbolInfo(call).Symbol is IMethodSymbol method
        && argument.Parent is BaseArgumentListSyntax list
        && (
            argument.NameColon is { } named
                ? method.Parameters.FirstOrDefault(p => p.Name == named.Name.Identifier.Text)
                : method.Parameters.ElementAtOrDefault(list.Arguments.IndexOf(argument))
        )
            is { } parameter
            ? parameter
            : null;

    /// <summary>The constant strings that an expression may come to.</summary>
    private static IEnumerable<string> Constants(ExpressionSyntax expression, SemanticModel model) =>
        model.GetConstantValue(expression) is { HasValue: true, Value: string constant }
            ? [constant]
            : expression switch
            {
                ParenthesizedExpressionSyntax inner => Constants(inner.Expression, model),
                ConditionalExpressionSyntax choice => Constants(choice.WhenTrue, model)
                    .Concat(Constants(choice.WhenFalse, model)),
                SwitchExpressionSyntax choice => choice.Arms.SelectMany(arm => Constants(arm.Expression, model)),
                _ => [],
            };

    private static IEnumerable<Template> ApiWords()
    {
        var of = typeof(Words).GetMethod(nameof(Words.Of), BindingFlags.Public | BindingFlags.Static)!;
        return from type in typeof(Message).Assembly.GetExportedTypes()
            where type.IsEnum
            from object value in Enum.GetValues(type)
            let word = (string)of.MakeGenericMethod(type).Invoke(null, [value])!
            select new Template(word, word, "words of the API");
    }
}
