package polymetron.lookup;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;

/** Answers what lives at an address, for each initiator. */
public final class WhatIsAt {
    private WhatIsAt() {}

    public static List<Place> find(ElaboratedPlatform platform, long address) {
        List<Place> places = new ArrayList<>();
        for (AddressSpace space : platform.spaces()) {
            places.add(
                    space.at(address)
                            .map(target -> in(space, target, address))
                            .orElse(new Place(space, null, 0, List.of())));
        }
        return places;
    }

    private static Place in(AddressSpace space, TargetRange target, long address) {
        long offset = address - target.range().base();
        List<Place.Hit> hits = new ArrayList<>();
        for (Register register : target.registers()) {
            int index = register.indexAt(offset);
            if (index >= 0) {
                hits.add(new Place.Hit(register, index));
            }
        }
        return new Place(space, target, offset, hits);
    }
}
