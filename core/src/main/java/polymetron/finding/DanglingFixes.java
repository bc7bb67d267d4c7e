package polymetron.finding;

import java.util.ArrayList;
import java.util.List;
import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.edit.RejectedEdit;
import polymetron.elaborate.DanglingReference;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.library.Board;
import polymetron.platform.Block;
import polymetron.platform.Bus;
import polymetron.platform.ClockDomain;

/** The fixes that drop a reference to what is missing, or replace it. */
final class DanglingFixes {
    private DanglingFixes() {}

    static List<Fix> of(ElaboratedPlatform platform, DanglingReference reference) {
        Editor editor = new Editor(platform.library());
        return candidates(platform, reference).stream()
                .filter(fix -> goes(editor, platform, fix.edit()))
                .toList();
    }

    private static boolean goes(Editor editor, ElaboratedPlatform platform, Edit edit) {
        try {
            return !editor.apply(platform.platform(), edit).equals(platform.platform());
        } catch (RejectedEdit impossible) {
            return false;
        }
    }

    private static List<Fix> candidates(ElaboratedPlatform platform, DanglingReference reference) {
        String subject = reference.subject();
        String name = reference.name();
        String whole = subject + "." + name;
        return switch (reference.sort()) {
            case BOARD -> OtherBoardFixes.with(platform, device -> true);
            case BLOCK_TYPE -> List.of(new Fix("Remove " + subject, new Edit.RemoveBlock(subject)));
            case PARAMETER ->
                    platform.platform().block(subject).map(Block::type).stream()
                            .map(
                                    type ->
                                            new Fix(
                                                    "Drop what %s does not have".formatted(subject),
                                                    new Edit.SetType(subject, type)))
                            .toList();
            case INPUT_DOMAIN ->
                    List.of(
                            new Fix(
                                    "Disconnect " + whole,
                                    new Edit.SetDomain(subject, name, null)));
            case BUS_DOMAIN -> busDomains(platform, subject);
            case ATTACHMENT ->
                    List.of(
                            new Fix(
                                    "Take %s off its bus".formatted(whole),
                                    new Edit.Detach(subject, name)));
            case CLOCK, RESET -> sources(platform, reference);
            case STREAM ->
                    List.of(
                            new Fix(
                                    "Disconnect " + whole,
                                    new Edit.DisconnectStream(subject, name)));
            case INTERRUPT ->
                    List.of(
                            new Fix(
                                    "Disconnect " + whole,
                                    new Edit.DisconnectInterrupt(subject, name)));
            case PART ->
                    List.of(
                            new Fix(
                                    "Leave %s open".formatted(whole),
                                    new Edit.Unbind(subject, name)));
        };
    }

    private static List<Fix> busDomains(ElaboratedPlatform platform, String name) {
        Bus bus = platform.platform().bus(name).orElseThrow();
        return platform.domains().stream()
                .map(
                        domain ->
                                new Fix(
                                        "Clock %s by %s".formatted(name, domain.name()),
                                        new Edit.ChangeBus(bus.withDomain(domain.name()))))
                .toList();
    }

    /** Other clocks and resets of the board for a domain; no reset at all as the last way. */
    private static List<Fix> sources(ElaboratedPlatform platform, DanglingReference reference) {
        ClockDomain domain = platform.platform().domain(reference.subject()).orElseThrow();
        Board board = platform.board();
        List<Fix> fixes = new ArrayList<>();
        if (reference.sort() == DanglingReference.Sort.CLOCK) {
            board.clocks()
                    .forEach(
                            clock ->
                                    fixes.add(
                                            new Fix(
                                                    "Clock %s by %s"
                                                            .formatted(domain.name(), clock.name()),
                                                    new Edit.ChangeDomain(
                                                            domain.withClock(clock.name())))));
        } else {
            board.resets()
                    .forEach(
                            reset ->
                                    fixes.add(
                                            new Fix(
                                                    "Reset %s by %s"
                                                            .formatted(domain.name(), reset.name()),
                                                    new Edit.ChangeDomain(
                                                            domain.withReset(reset.name())))));
            fixes.add(
                    new Fix(
                            "Leave %s without a reset".formatted(domain.name()),
                            new Edit.ChangeDomain(domain.withReset(null))));
        }
        return fixes;
    }
}
