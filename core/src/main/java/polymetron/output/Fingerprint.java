package polymetron.output;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.TreeMap;
import polymetron.elaborate.Domain;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.TargetRange;
import polymetron.platform.InterruptWire;

/**
 * Hash of everything that software can see of a platform: block types, parameters, ranges, interrupt inputs and
 * clock rates. Board pins, held marks and accepted findings do not count. SHA-256 (FIPS 180-4), of which the first
 * 64 bits are shown.
 */
public final class Fingerprint {
    private static final int DIGITS = 16;

    private Fingerprint() {}

    /** Sixteen hexadecimal digits. */
    public static String of(ElaboratedPlatform platform) {
        StringBuilder facts = new StringBuilder("polymetron-fingerprint/1\n");
        for (Domain domain : new TreeMap<>(platform.domainIndex()).values()) {
            facts.append("clock ")
                    .append(domain.name())
                    .append(' ')
                    .append(domain.frequencyHz())
                    .append('\n');
        }
        for (ElaboratedBlock block : new TreeMap<>(platform.blockIndex()).values()) {
            facts.append("block ")
                    .append(block.name())
                    .append(' ')
                    .append(block.type().identity())
                    .append('\n');
            block.shape()
                    .parameters()
                    .forEach(
                            (name, value) ->
                                    facts.append("  ")
                                            .append(name)
                                            .append('=')
                                            .append(value)
                                            .append('\n'));
            block.block()
                    .domains()
                    .forEach(
                            (port, domain) ->
                                    facts.append("  ")
                                            .append(port)
                                            .append('@')
                                            .append(domain)
                                            .append('\n'));
        }
        platform.spaces().stream()
                .sorted((one, other) -> one.initiator().ref().compareTo(other.initiator().ref()))
                .forEach(
                        space -> {
                            facts.append("space ").append(space.initiator().ref()).append('\n');
                            for (TargetRange target : space.ranges()) {
                                facts.append("  ")
                                        .append(target.ref())
                                        .append(' ')
                                        .append(target.range())
                                        .append('\n');
                            }
                        });
        platform.interrupts().stream()
                .filter(InterruptLink::isConnected)
                .sorted((one, other) -> one.ref().compareTo(other.ref()))
                .forEach(
                        link ->
                                facts.append("interrupt ")
                                        .append(link.ref())
                                        .append(' ')
                                        .append(wire(link.wire()))
                                        .append('\n'));
        return HexFormat.of().formatHex(sha256(facts.toString())).substring(0, DIGITS);
    }

    /** Written so since the first version; a priority comes after it, where there is one. */
    private static String wire(InterruptWire wire) {
        return "InterruptWire[block=%s, sink=%s, input=%s]%s"
                .formatted(
                        wire.block(),
                        wire.sink(),
                        wire.input(),
                        wire.priority() == null ? "" : " priority " + wire.priority());
    }

    private static byte[] sha256(String text) {
        try {
            return MessageDigest.getInstance("SHA-256")
                    .digest(text.getBytes(StandardCharsets.UTF_8));
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("every Java has SHA-256", impossible);
        }
    }
}
