using System.Xml.Linq;
using Microsoft.AspNetCore.DataProtection.KeyManagement;
using Microsoft.AspNetCore.DataProtection.Repositories;
using UnrulyMeadow.Store;

namespace UnrulyMeadow.Web;

/// <summary>Keeps the keys of forms in the database instead of in somebody's home folder.</summary>
/// <param name="keys">Where.</param>
public sealed class SigningKeys(KeyStore keys) : IXmlRepository
{
    /// <summary>Uses them.</summary>
    public static void Use(KeyManagementOptions options, KeyStore keys) => options.XmlRepository = new SigningKeys(keys);

    /// <inheritdoc />
    public IReadOnlyCollection<XElement> GetAllElements() => [.. keys.All().Select(k => XElement.Parse(k))];

    /// <inheritdoc />
    public void StoreElement(XElement element, string friendlyName) => keys.Keep(friendlyName, element.ToString(SaveOptions.DisableFormatting));
}
