package polymetron.lookup;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;

/** Answers where a block or register is, for each initiator: the other way round than {@link WhatIsAt}. */
public final class WhereIs {
    private WhereIs() {}

    /**
     * An address of what was searched for.
     *
     * @param name block, or block and register as {@code uart.THR}
     */
    public record Found(AddressSpace space, String name, TargetRange target, long address) {}

    /**
     * Everything whose name begins with the search text: {@code uart} finds the block, {@code uart.} all of its registers,
     * {@code uart.lsr} one of them. Capitals do not matter.
     *
     * @param most entries at most
     */
    public static List<Found> find(ElaboratedPlatform platform, String name, int most) {
        String wanted = name.strip().toLowerCase(Locale.ROOT);
        List<Found> found = new ArrayList<>();
        for (AddressSpace space : platform.spaces()) {
            for (TargetRange target : space.ranges()) {
                String block = target.label().toLowerCase(Locale.ROOT);
                if (block.startsWith(wanted)) {
                    found.add(new Found(space, target.label(), target, target.range().base()));
                } else if (wanted.startsWith(block + ".")) {
                    registers(space, target, wanted.substring(block.length() + 1), found);
                }
                if (found.size() >= most) {
                    return List.copyOf(found.subList(0, most));
                }
            }
        }
        return List.copyOf(found);
    }

    private static void registers(
            AddressSpace space, TargetRange target, String wanted, List<Found> found) {
        for (Register register : target.registers()) {
            for (int index = 0; index < register.count(); index++) {
                String name = register.name(index);
                if (name.toLowerCase(Locale.ROOT).startsWith(wanted)) {
                    found.add(
                            new Found(
                                    space,
                                    target.label() + "." + name,
                                    target,
                                    target.range().base() + register.offset(index)));
                }
            }
        }
    }
}
