using System.Net;
using System.Net.Sockets;

namespace Valtro.Server.Outside;

/// <summary>Which addresses are anybody's on the internet, and not of this machine, of a network around it, or of nobody.</summary>
/// <remarks>By IANA's registries of special-purpose addresses (RFC 6890), and what is only an IPv4 address in other clothes.</remarks>
public static class PublicNetworks
{
    private static readonly IPNetwork[] NotPublic =
    [
        // "This network", private ones, shared address space, loopback, link-local (metadata of clouds among it).
        .. Networks("0.0.0.0/8 10.0.0.0/8 100.64.0.0/10 127.0.0.0/8 169.254.0.0/16 172.16.0.0/12 192.168.0.0/16"),
        // Protocol assignments, documentation, 6to4 relays, benchmarks, multicast, reserved.
        .. Networks("192.0.0.0/24 192.0.2.0/24 192.88.99.0/24 198.18.0.0/15 198.51.100.0/24 203.0.113.0/24 224.0.0.0/4 240.0.0.0/4"),
        // Within what is global: Teredo and other protocols, documentation, 6to4.
        .. Networks("2001::/23 2001:db8::/32 2002::/16 3fff::/20"),
    ];

    /// <summary>All that is given out to anybody; what lies outside is local, mapped, translated or reserved (RFC 4291 2.4).</summary>
    private static readonly IPNetwork GlobalUnicast = IPNetwork.Parse("2000::/3");

    private static IEnumerable<IPNetwork> Networks(string all) => all.Split(' ').Select(one => IPNetwork.Parse(one));

    public static bool Holds(IPAddress address)
    {
        if (address.IsIPv4MappedToIPv6)
            return Holds(address.MapToIPv4());
        if (address.AddressFamily == AddressFamily.InterNetworkV6 && (address.ScopeId != 0 || !GlobalUnicast.Contains(address)))
            return false;
        return !NotPublic.Any(network => network.Contains(address));
    }
}
