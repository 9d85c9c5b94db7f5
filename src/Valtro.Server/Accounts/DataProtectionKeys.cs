using System.Xml.Linq;
using Microsoft.AspNetCore.DataProtection.Repositories;
using Valtro.Store;

namespace Valtro.Server.Accounts;

/// <summary>Keeps the keys of cookies and antiforgery tokens in PostgreSQL, so that any node reads what another wrote.</summary>
internal sealed class DataProtectionKeys(Database database) : IXmlRepository
{
    // Data protection asks synchronously, a few times in a process's life.
    public IReadOnlyCollection<XElement> GetAllElements() =>
        [.. database.ListAsync<string>("select xml from data_protection_key").GetAwaiter().GetResult().Select(xml => XElement.Parse(xml))];

    public void StoreElement(XElement element, string friendlyName) =>
        database.ExecuteAsync("""
            insert into data_protection_key (friendly_name, xml)
            values (@friendlyName, @xml)
            """, new { friendlyName, xml = element.ToString(SaveOptions.DisableFormatting) }).GetAwaiter().GetResult();
}
