package polymetron.bench.stream;

import java.util.List;
import polymetron.elaborate.ElaboratedBlock;
import polymetron.library.Vlnv;

/** The elements of blocks without registers. */
final class StreamElements {
    private StreamElements() {}

    static List<StreamElement> of(ElaboratedBlock block) {
        // A block of that name from another vendor may be anything.
        if (!block.type().identity().vendor().equals(Vlnv.OURS)) {
            return List.of();
        }
        var shape = block.shape();
        return switch (block.type().identity().name()) {
            case "fifo" ->
                    List.of(
                            new Fifo(
                                    (int) shape.number("DEPTH"),
                                    shape.number("PACKETS") != 0,
                                    shape.number("LANES") != 0));
            case "splitter" -> List.of(new Splitter((int) shape.number("OUTPUTS")));
            case "width-adapter" ->
                    List.of(
                            new WidthAdapter(
                                    (int) shape.number("IN_WIDTH") / 8,
                                    (int) shape.number("OUT_WIDTH") / 8));
            case "clock-crossing" -> {
                Crossing crossing = new Crossing((int) shape.number("DEPTH"));
                yield List.of(crossing.in(), crossing.out());
            }
            default -> List.of();
        };
    }
}
