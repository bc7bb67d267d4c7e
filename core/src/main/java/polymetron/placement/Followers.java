package polymetron.placement;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.expression.Expression;
import polymetron.software.Hart;
import polymetron.software.Harts;
import polymetron.software.MemoryBuffer;
import polymetron.whatif.WhatIf;

/**
 * What points into a memory and has to follow when the memory moves: reset and trap vectors, and buffers that hardware
 * writes. Each keeps its offset in its memory.
 */
public final class Followers {
    /** A parameter that holds an address in a memory, as one initiator sees it. */
    private record Pointer(
            ElaboratedBlock block,
            String parameter,
            InterfaceRef initiator,
            TargetRange memory,
            long address) {}

    private Followers() {}

    /** The edit together with what has to follow it; the edit itself when nothing has to. */
    public static Edit with(ElaboratedPlatform before, Edit edit) {
        List<Edit> following = of(before, edit);
        if (following.isEmpty()) {
            return edit;
        }
        List<Edit> all = new ArrayList<>(List.of(edit));
        all.addAll(following);
        return new Edit.Several(edit.describe(), all);
    }

    /** Only what has to follow. */
    public static List<Edit> of(ElaboratedPlatform before, Edit edit) {
        List<Pointer> pointers = pointers(before);
        if (pointers.isEmpty()) {
            return List.of();
        }
        ElaboratedPlatform after;
        try {
            after = WhatIf.after(before, edit);
        } catch (RejectedEdit impossible) {
            return List.of();
        }
        List<Edit> following = new ArrayList<>();
        for (Pointer pointer : pointers) {
            moved(after, pointer)
                    .ifPresent(
                            to ->
                                    following.add(
                                            new Edit.SetParameter(
                                                    pointer.block().name(),
                                                    pointer.parameter(),
                                                    to.toString())));
        }
        return following;
    }

    /** Whether anything points into a target. */
    public static boolean pointInto(ElaboratedPlatform platform, InterfaceRef target) {
        return pointers(platform).stream()
                .anyMatch(pointer -> pointer.memory().ref().equals(target));
    }

    private static Optional<Address> moved(ElaboratedPlatform after, Pointer pointer) {
        long offset = pointer.address() - pointer.memory().range().base();
        return after.space(pointer.initiator()).stream()
                .flatMap(space -> space.ranges().stream())
                .filter(range -> range.ref().equals(pointer.memory().ref()))
                .findFirst()
                .map(range -> new Address(range.range().base() + offset))
                .filter(to -> to.bits() != pointer.address());
    }

    private static List<Pointer> pointers(ElaboratedPlatform platform) {
        List<Pointer> pointers = new ArrayList<>();
        for (Hart hart : Harts.of(platform).all()) {
            if (hart.index() == 0) {
                InterfaceRef fetch = new InterfaceRef(hart.block().name(), hart.role().fetch());
                AddressSpace space = platform.space(fetch).orElse(null);
                vector(pointers, hart, space, hart.role().reset(), hart.resetVector());
                vector(pointers, hart, space, hart.role().trap(), hart.trapVector());
            }
        }
        for (MemoryBuffer buffer : MemoryBuffer.of(platform)) {
            String parameter = buffer.role().base().parameter().orElse(null);
            if (parameter != null && buffer.memory() != null) {
                pointers.add(
                        new Pointer(
                                buffer.block(),
                                parameter,
                                new InterfaceRef(buffer.block().name(), buffer.role().writer()),
                                buffer.memory(),
                                buffer.range().base()));
            }
        }
        return pointers;
    }

    private static void vector(
            List<Pointer> pointers,
            Hart hart,
            AddressSpace space,
            Expression vector,
            long address) {
        String parameter = vector.parameter().orElse(null);
        if (space == null || parameter == null) {
            return;
        }
        space.at(address)
                .filter(target -> target.form().isMemory())
                .ifPresent(
                        memory ->
                                pointers.add(
                                        new Pointer(
                                                hart.block(),
                                                parameter,
                                                space.initiator().ref(),
                                                memory,
                                                address)));
    }
}
