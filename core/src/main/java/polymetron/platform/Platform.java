package polymetron.platform;

import java.util.List;
import java.util.Optional;
import polymetron.library.Vlnv;

/** What the user decided, nothing derived: one document. Immutable. */
public record Platform(
        String format,
        String name,
        Vlnv board,
        List<ClockDomain> domains,
        List<Bus> buses,
        List<Block> blocks,
        List<Acceptance> accepted) {
    public static final String FORMAT = "polymetron-platform/1";

    /** As many of each as the schema allows: far more than any device has room for, and still worked out in seconds. */
    public static final int MOST_BLOCKS = 10_000;

    public static final int MOST_BUSES = 256;
    public static final int MOST_DOMAINS = 256;
    public static final int MOST_ACCEPTED = 10_000;

    public Platform {
        domains = domains == null ? List.of() : List.copyOf(domains);
        buses = buses == null ? List.of() : List.copyOf(buses);
        blocks = blocks == null ? List.of() : List.copyOf(blocks);
        accepted = accepted == null ? List.of() : List.copyOf(accepted);
    }

    public static Platform empty(String name, Vlnv board) {
        return new Platform(FORMAT, name, board, null, null, null, null);
    }

    public Optional<Block> block(String blockName) {
        return blocks.stream().filter(block -> block.name().equals(blockName)).findFirst();
    }

    public Optional<Bus> bus(String busName) {
        return buses.stream().filter(bus -> bus.name().equals(busName)).findFirst();
    }

    public Optional<ClockDomain> domain(String domainName) {
        return domains.stream().filter(domain -> domain.name().equals(domainName)).findFirst();
    }

    public Platform withName(String newName) {
        return new Platform(format, newName, board, domains, buses, blocks, accepted);
    }

    public Platform withBoard(Vlnv other) {
        return new Platform(format, name, other, domains, buses, blocks, accepted);
    }

    public Platform withDomains(List<ClockDomain> newDomains) {
        return new Platform(format, name, board, newDomains, buses, blocks, accepted);
    }

    public Platform withBuses(List<Bus> newBuses) {
        return new Platform(format, name, board, domains, newBuses, blocks, accepted);
    }

    public Platform withBlocks(List<Block> newBlocks) {
        return new Platform(format, name, board, domains, buses, newBlocks, accepted);
    }

    public Platform withAccepted(List<Acceptance> newAccepted) {
        return new Platform(format, name, board, domains, buses, blocks, newAccepted);
    }
}
