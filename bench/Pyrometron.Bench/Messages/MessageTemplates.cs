using System.Reflection;
using Microsoft.CodeAnalysis;
using Microsoft.CodeAnalysis.CSharp;
using Microsoft.CodeAnalysis.CSharp.Syntax;
using Microsoft.CodeAnalysis.Operations;
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

    /// <summary>Reads them all.</summary>
    /// <param name="root">The root of the repository; its projects must have been built.</param>
    /// <returns>
    /// The texts in order of their keys; and where a text becomes a message though nobody knows it before it is made, so that no
    /// language can have it.
    /// </returns>
    public static (IReadOnlyList<Template> Known, IReadOnlyList<string> Unknown) Of(string root)
    {
        var trees = Sources(root).Select(file => CSharpSyntaxTree.ParseText(File.ReadAllText(file), path: file)).ToArray();
        var compilation = CSharpCompilation.Create("sources", trees, References());
        var read = trees
            .AsParallel()
            .AsOrdered()
            .Select(tree =>
            {
                var origin = Path.GetRelativePath(root, tree.FilePath);
                var operations = Operations(tree, compilation.GetSemanticModel(tree)).ToList();
                return (
                    Known: operations.SelectMany(In).Select(t => new Template(t.Id, t.Message, origin)).ToList(),
                    Unknown: operations.SelectMany(UnknownIn).Select(text => $"{origin}: {text}").ToList()
                );
            })
            .ToList();
        var found = new SortedDictionary<string, Template>(StringComparer.Ordinal);
        foreach (var template in ApiWords().Concat(read.SelectMany(r => r.Known)))
            found[template.Id] = template;
        return ([.. found.Values], [.. read.SelectMany(r => r.Unknown)]);
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

    /// <summary>Everything that a source does, operation by operation.</summary>
    private static IEnumerable<IOperation> Operations(SyntaxTree tree, SemanticModel model) =>
        from node in tree.GetRoot().DescendantNodes()
        where
            node is BaseMethodDeclarationSyntax or AccessorDeclarationSyntax or EqualsValueClauseSyntax or GlobalStatementSyntax
            || node is ArrowExpressionClauseSyntax { Parent: PropertyDeclarationSyntax or IndexerDeclarationSyntax }
        let whole = model.GetOperation(node)
        where whole is { Parent: null }
        from operation in whole.DescendantsAndSelf()
        select operation;

    private static IEnumerable<string> UnknownIn(IOperation operation)
    {
        var text = operation switch
        {
            IConversionOperation { OperatorMethod.ContainingType.Name: nameof(Message) } conversion => conversion.Operand,
            ISpreadOperation { ElementConversion.MethodSymbol.ContainingType.Name: nameof(Message) } spread => spread,
            _ => null,
        };
        return text is null || AllConstant(text) ? [] : [text.Syntax.ToString()];
    }

    /// <summary>The texts of one operation: their keys, and the English of each.</summary>
    private static IEnumerable<(string Id, string Message)> In(IOperation operation)
    {
        switch (operation)
        {
            case IConversionOperation { OperatorMethod.ContainingType.Name: nameof(Message) } conversion:
                return Constants(conversion.Operand).Select(Same);
            case IInterpolatedStringHandlerCreationOperation { Type.Name: nameof(Message) } sentence:
                return [Same(TemplateOf(sentence.Content))];
            case IArgumentOperation { Parameter: { } parameter } argument:
                if (parameter.Name.Equals(TemplateParameter, StringComparison.OrdinalIgnoreCase))
                    return Constants(argument.Value).Select(Same);
                if (parameter is { Name: "between", ContainingSymbol.Name: nameof(Value.List) })
                    return Constants(argument.Value).Where(b => b.Any(char.IsLetter)).Select(Same);
                if (parameter is { Name: "noun", ContainingSymbol.Name: nameof(Value.Counted) })
                    return Constants(argument.Value).Select(n => ($"# {n}", $"{{n, plural, one {{# {n}}} other {{# {n}s}}}}"));
                return [];
            default:
                return [];
        }

        static (string, string) Same(string template) => (Icu(template), Icu(template));
    }

    /// <summary>The template that a message makes of an interpolated text: its holes are its places, by their numbers.</summary>
    private static string TemplateOf(IOperation text)
    {
        var hole = 0;
        return string.Concat(
            text.DescendantsAndSelf()
                .OfType<IInterpolatedStringAppendOperation>()
                .Select(part =>
                    part.Kind == OperationKind.InterpolatedStringAppendLiteral
                        ? Constants(((IInvocationOperation)part.AppendCall).Arguments[0].Value).Single()
                        : $"{{{hole++}}}"
                )
        );
    }

    /// <summary>The constant texts that an operation may come to.</summary>
    private static IEnumerable<string> Constants(IOperation operation) =>
        operation.ConstantValue is { HasValue: true, Value: string constant }
            ? constant.Length > 0
                ? [constant]
                : []
            : Branches(operation).SelectMany(Constants);

    private static bool AllConstant(IOperation operation) =>
        operation.ConstantValue.HasValue
        || operation is IThrowOperation or IConversionOperation { Operand: IThrowOperation }
        || (Branches(operation).Any() && Branches(operation).All(AllConstant));

    private static IEnumerable<IOperation> Branches(IOperation operation) =>
        operation switch
        {
            IParenthesizedOperation inner => [inner.Operand],
            IConversionOperation { OperatorMethod: null } inner => [inner.Operand],
            IConditionalOperation { WhenFalse: { } otherwise } choice => [choice.WhenTrue, otherwise],
            ISwitchExpressionOperation choice => choice.Arms.Select(arm => arm.Value),
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
