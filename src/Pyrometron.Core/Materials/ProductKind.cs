namespace Pyrometron.Core.Materials;

/// <summary>A product that a job uses or fits, of which name and batch are kept.</summary>
public enum ProductKind
{
    Paste,
    Pads,
    Putty,
    Alcohol,
    Remover,
    Cooler,
    Fan,
    Stand,
    Filter,
    Wipes,
    Swabs,
}
