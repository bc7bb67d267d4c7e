package polymetron.edit;

import static polymetron.edit.Known.require;

import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import polymetron.library.Board;
import polymetron.library.Device;
import polymetron.library.OutwardInterface;
import polymetron.platform.Block;
import polymetron.platform.Outward;
import polymetron.platform.PinSetting;
import polymetron.platform.Platform;

/** External ports: parts of the board, pins and how they are set. */
final class OutwardEdits {
    private OutwardEdits() {}

    static Platform bindPart(Known known, Edit.BindPart edit) {
        OutwardInterface outward = known.outward(edit.block(), edit.outward());
        Board board =
                known.library()
                        .board(known.platform().board())
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "part",
                                                "the board of the platform is not in the library"));
        Board.Part part =
                board.part(edit.part())
                        .orElseThrow(
                                () ->
                                        new RejectedEdit(
                                                "part",
                                                "%s has no part %s; it has %s"
                                                        .formatted(
                                                                board.title(),
                                                                edit.part(),
                                                                Known.names(
                                                                        board.parts(),
                                                                        Board.Part::name))));
        require(
                outward.partKinds().contains(part.kind()),
                "part",
                "%s.%s cannot drive %s, which is a %s"
                        .formatted(edit.block(), edit.outward(), part.name(), part.kind()));
        for (Block other : known.platform().blocks()) {
            for (Map.Entry<String, Outward> entry : other.outward().entrySet()) {
                boolean same =
                        other.name().equals(edit.block()) && entry.getKey().equals(edit.outward());
                require(
                        same || !edit.part().equals(entry.getValue().part()),
                        "part",
                        "board part %s is already taken by %s"
                                .formatted(edit.part(), other.name()));
            }
        }
        return known.change(
                edit.block(),
                block -> block.withOutward(edit.outward(), new Outward(edit.part(), null, null)));
    }

    static Platform bindPins(Known known, Edit.BindPins edit) {
        OutwardInterface outward = known.outward(edit.block(), edit.outward());
        Map<String, List<String>> pins = edit.pins() == null ? Map.of() : edit.pins();
        for (String port : pins.keySet()) {
            require(
                    outward.ports().stream().anyMatch(there -> there.name().equals(port)),
                    "pins",
                    "%s.%s has no port %s".formatted(edit.block(), edit.outward(), port));
        }
        known.library()
                .board(known.platform().board())
                .flatMap(board -> known.library().deviceOf(board))
                .ifPresent(device -> exist(device, pins));
        Outward before = known.block(edit.block()).outward().get(edit.outward());
        Outward bound =
                new Outward(null, new TreeMap<>(pins), before == null ? null : before.settings());
        return known.change(edit.block(), block -> block.withOutward(edit.outward(), bound));
    }

    private static void exist(Device device, Map<String, List<String>> pins) {
        for (List<String> lines : pins.values()) {
            for (String pin : lines == null ? List.<String>of() : lines) {
                require(
                        pin != null && device.hasPin(pin),
                        "pins",
                        "%s has no pin %s".formatted(device.name(), pin));
            }
        }
    }

    static Platform setPins(Known known, Edit.SetPins edit) {
        OutwardInterface outward = known.outward(edit.block(), edit.outward());
        require(
                outward.ports().stream().anyMatch(there -> there.name().equals(edit.port())),
                "port",
                "%s.%s has no port %s".formatted(edit.block(), edit.outward(), edit.port()));
        PinSetting setting = PinSetting.USUAL.equals(edit.setting()) ? null : edit.setting();
        require(
                setting == null
                        || setting.drive() == null
                        || setting.drive() >= 1 && setting.drive() <= 100,
                "setting.drive",
                "an output drives between 1 and 100 mA");
        Outward before = known.block(edit.block()).outward().get(edit.outward());
        Outward bound = before == null ? new Outward(null, null, null) : before;
        return known.change(
                edit.block(),
                block ->
                        block.withOutward(edit.outward(), bound.withSetting(edit.port(), setting)));
    }

    static Platform unbind(Known known, Edit.Unbind edit) {
        require(
                edit.outward() != null
                        && known.block(edit.block()).outward().containsKey(edit.outward()),
                "outward",
                "%s.%s goes to no part and no pin".formatted(edit.block(), edit.outward()));
        return known.change(edit.block(), block -> block.withOutward(edit.outward(), null));
    }
}
