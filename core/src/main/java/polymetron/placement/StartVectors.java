package polymetron.placement;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import polymetron.address.Address;
import polymetron.edit.Edit;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.InterfaceRef;
import polymetron.elaborate.TargetRange;
import polymetron.expression.Expression;
import polymetron.software.Hart;
import polymetron.software.Harts;
import polymetron.whatif.WhatIf;

/**
 * Where a processor is to start and to go on a trap: into executable memory, best into one that the bitstream fills. What
 * the user has set stays, whatever is there.
 *
 * @param memory memory that the vectors go into
 * @param edits what sets them; empty when they are right as they are
 */
public record StartVectors(ElaboratedBlock processor, TargetRange memory, List<Edit> edits) {
    /** Bytes from a reset vector to a trap vector beside it, room for the jump between. */
    private static final long BESIDE = 0x40;

    /** One for every processor that fetches from memory of the platform. */
    public static List<StartVectors> of(ElaboratedPlatform platform) {
        List<StartVectors> all = new ArrayList<>();
        for (Hart hart : Harts.of(platform).all()) {
            InterfaceRef fetch = new InterfaceRef(hart.block().name(), hart.role().fetch());
            AddressSpace space = platform.space(fetch).orElse(null);
            if (hart.index() == 0 && space != null && !space.initiator().seesInside()) {
                best(space).ifPresent(memory -> all.add(of(hart, space, memory)));
            }
        }
        return all;
    }

    /** An edit that gives a processor something to fetch from, together with where it starts then. */
    public static Edit with(ElaboratedPlatform before, Edit edit) {
        ElaboratedPlatform after = WhatIf.after(before, edit);
        List<Edit> all = new ArrayList<>(List.of(edit));
        of(after).forEach(start -> all.addAll(start.edits()));
        return all.size() == 1 ? edit : new Edit.Several(edit.describe(), all);
    }

    private static StartVectors of(Hart hart, AddressSpace space, TargetRange memory) {
        List<Edit> edits = new ArrayList<>();
        long base = memory.range().base();
        if (isWrong(space, hart.resetVector(), memory)) {
            set(hart.block(), hart.role().reset(), base).ifPresent(edits::add);
        }
        if (isWrong(space, hart.trapVector(), memory)) {
            set(hart.block(), hart.role().trap(), base + BESIDE).ifPresent(edits::add);
        }
        return new StartVectors(hart.block(), memory, List.copyOf(edits));
    }

    private static Optional<Edit> set(ElaboratedBlock block, Expression vector, long address) {
        return vector.parameter()
                .filter(name -> !block.block().parameters().containsKey(name))
                .filter(name -> block.type().parameter(name).isPresent())
                .map(name -> new Edit.SetParameter(block.name(), name, Address.format(address)));
    }

    /** Whether nothing can be fetched there, or nothing is there after configuration though another memory is filled. */
    private static boolean isWrong(AddressSpace space, long vector, TargetRange best) {
        TargetRange at = space.at(vector).filter(StartVectors::isExecutable).orElse(null);
        return at == null || best.isFilledByBitstream() && isEmpty(at);
    }

    private static Optional<TargetRange> best(AddressSpace space) {
        List<TargetRange> executable =
                space.ranges().stream().filter(StartVectors::isExecutable).toList();
        return executable.stream()
                .filter(TargetRange::isFilledByBitstream)
                .findFirst()
                .or(() -> executable.stream().findFirst());
    }

    private static boolean isExecutable(TargetRange target) {
        return target.form().isMemory() && target.form().type().executable();
    }

    private static boolean isEmpty(TargetRange target) {
        return target.form().isWritable() && !target.isFilledByBitstream();
    }
}
