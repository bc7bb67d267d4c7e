package polymetron.elaborate;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import polymetron.library.Board;
import polymetron.library.Device;
import polymetron.library.Library;
import polymetron.platform.Platform;

/**
 * A platform with everything worked out that follows from it. Immutable; findings, views, files, images and the
 * bench only read it.
 *
 * @param board null when the library does not have it
 * @param device null when the board is not there
 * @param blockIndex blocks of known type, by name, in the order of the document
 * @param busIndex buses by name, in the order of the document
 * @param spaces what each attached initiator sees
 * @param streams every stream source
 * @param interrupts every interrupt source
 * @param outward every outward interface
 * @param dangling references that lead nowhere
 * @param results what passes made of it so far
 */
public record ElaboratedPlatform(
        Platform platform,
        Library library,
        Board board,
        Device device,
        Map<String, Domain> domainIndex,
        Map<String, ElaboratedBlock> blockIndex,
        Map<String, ElaboratedBus> busIndex,
        List<AddressSpace> spaces,
        List<StreamLink> streams,
        List<InterruptLink> interrupts,
        List<OutwardLink> outward,
        List<DanglingReference> dangling,
        Results results) {

    /** The same platform, were it on another device. */
    public ElaboratedPlatform on(Device other) {
        return new ElaboratedPlatform(
                platform,
                library,
                board,
                other,
                domainIndex,
                blockIndex,
                busIndex,
                spaces,
                streams,
                interrupts,
                outward,
                dangling,
                new Results());
    }

    /** What a pass makes of the platform; the same each time. */
    public <T> T result(Pass<T> pass) {
        return results.of(this, pass);
    }

    public Collection<ElaboratedBlock> blocks() {
        return blockIndex.values();
    }

    public Collection<ElaboratedBus> buses() {
        return busIndex.values();
    }

    public Collection<Domain> domains() {
        return domainIndex.values();
    }

    public Optional<ElaboratedBlock> block(String name) {
        return Optional.ofNullable(blockIndex.get(name));
    }

    public Optional<ElaboratedBus> bus(String name) {
        return Optional.ofNullable(busIndex.get(name));
    }

    public Optional<AddressSpace> space(InterfaceRef initiator) {
        return spaces.stream()
                .filter(space -> space.initiator().ref().equals(initiator))
                .findFirst();
    }

    /** Frequency in hertz of a clock input of a block; 0 when it has none. */
    public long frequencyHz(ElaboratedBlock block, String clockInput) {
        String name = block.block().domains().get(clockInput);
        Domain domain = name == null ? null : domainIndex.get(name);
        return domain == null ? 0 : domain.frequencyHz();
    }

    /** Frequency in hertz of a bus; 0 when it has no clock. */
    public long frequencyHz(ElaboratedBus bus) {
        String name = bus.bus().domain();
        Domain domain = name == null ? null : domainIndex.get(name);
        return domain == null ? 0 : domain.frequencyHz();
    }

    /** Frequency in hertz of the first clock input of a block; 0 when it has none. */
    public long frequencyHz(ElaboratedBlock block) {
        return block.type().clocks().isEmpty()
                ? 0
                : frequencyHz(block, block.type().clocks().getFirst().name());
    }
}
