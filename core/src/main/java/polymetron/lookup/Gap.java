package polymetron.lookup;

import java.util.List;
import polymetron.address.AddressRange;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedBus;
import polymetron.elaborate.SeenWindow;
import polymetron.elaborate.TargetRange;

/**
 * Addresses of a space at which no target answers.
 *
 * @param what in words, what is there instead; empty for free space
 */
public record Gap(Sort sort, String what) {
    /** Why nothing answers. */
    public enum Sort {
        /** Nothing is there, and something can be put there. */
        FREE("free"),
        /** Within the window of a bridge: the access goes out on the bus behind, and nothing is there. */
        BEHIND("behind"),
        /** Kept free of automatic placement. */
        KEPT("kept"),
        /** A target is there that this initiator has no use for, or that the user hid from it. */
        HIDDEN("hidden"),
        /** The initiator or its bus does not get there. */
        OUTSIDE("outside");

        private final String word;

        Sort(String word) {
            this.word = word;
        }

        @Override
        public String toString() {
            return word;
        }
    }

    static final Gap FREE = new Gap(Sort.FREE, "");
    static final Gap NOT_REACHED = new Gap(Sort.HIDDEN, "");

    /** What is at an address where no target answers. */
    static Gap at(AddressSpace space, long address) {
        AddressRange passed = space.initiator().form().place();
        if (!space.window().contains(address) || passed != null && !passed.contains(address)) {
            return new Gap(Sort.OUTSIDE, "out of reach");
        }
        for (TargetRange hidden : space.hidden()) {
            if (hidden.range().contains(address)) {
                return new Gap(Sort.HIDDEN, hidden.label() + " hidden");
            }
        }
        SeenWindow window = null;
        for (SeenWindow each : space.windows()) {
            // The innermost window decides: it comes later and lies within the outer one.
            if (each.range().contains(address)) {
                window = each;
            }
        }
        if (window != null) {
            return new Gap(Sort.BEHIND, "nothing on " + window.bus());
        }
        List<ElaboratedBus.Kept> kept = space.bus() == null ? List.of() : space.bus().kept();
        for (ElaboratedBus.Kept each : kept) {
            if (each.range().contains(address)) {
                return new Gap(Sort.KEPT, each.what());
            }
        }
        return FREE;
    }
}
