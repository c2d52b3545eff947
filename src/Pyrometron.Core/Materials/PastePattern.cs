namespace Pyrometron.Core.Materials;

/// <summary>How paste is laid on.</summary>
public enum PastePattern
{
    Spread,
    Line,
    Dot,
    Cross,
}
