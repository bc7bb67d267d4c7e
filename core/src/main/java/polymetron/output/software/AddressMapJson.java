package polymetron.output.software;

import java.util.ArrayList;
import java.util.List;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.Domain;
import polymetron.elaborate.InterruptLink;
import polymetron.elaborate.Register;
import polymetron.elaborate.TargetRange;
import polymetron.json.Documents;
import polymetron.output.Exporter;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.platform.Titles;
import polymetron.software.SoftwareView;

/** The address map of every initiator, with registers, interrupts and clocks, for scripts. */
final class AddressMapJson implements Exporter {
    private record Map(
            String platform,
            String fingerprint,
            List<Clock> clocks,
            List<Space> spaces,
            List<Interrupt> interrupts) {}

    private record Clock(String name, long hertz) {}

    private record Space(String initiator, List<Range> ranges) {}

    private record Range(
            String block,
            String busInterface,
            String type,
            String usage,
            String base,
            String last,
            long sizeBytes,
            List<Place> registers) {}

    private record Place(
            String name, String address, int width, String access, int count, int stride) {}

    private record Interrupt(
            String block,
            String source,
            String sinkBlock,
            String sink,
            int input,
            String trigger) {}

    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        List<Clock> clocks = new ArrayList<>();
        for (Domain domain : view.platform().domains()) {
            clocks.add(new Clock(domain.name(), domain.frequencyHz()));
        }
        List<Space> spaces = new ArrayList<>();
        for (AddressSpace space : view.platform().spaces()) {
            spaces.add(
                    new Space(
                            space.initiator().ref().toString(),
                            space.ranges().stream().map(AddressMapJson::range).toList()));
        }
        List<Interrupt> interrupts = new ArrayList<>();
        for (InterruptLink link : view.platform().interrupts()) {
            if (link.isConnected()) {
                interrupts.add(
                        new Interrupt(
                                link.block().name(),
                                link.source().name(),
                                link.wire().block(),
                                link.wire().sink(),
                                link.wire().input(),
                                String.valueOf(link.source().type().trigger())));
            }
        }
        Map map =
                new Map(
                        Titles.shown(view.platform().platform().name()),
                        names.fingerprint(),
                        clocks,
                        spaces,
                        interrupts);
        return new HandoffFile(
                names.of("_map.json"), "address map, for scripts", Documents.write(map));
    }

    private static Range range(TargetRange target) {
        List<Place> registers = new ArrayList<>();
        for (Register register : target.registers()) {
            registers.add(
                    new Place(
                            register.name(),
                            AddressMapCsv.hex(target.range().base() + register.offset()),
                            register.width(),
                            register.access().toString(),
                            register.count(),
                            register.stride()));
        }
        return new Range(
                target.block().name(),
                target.form().name(),
                target.block().type().identity().toString(),
                String.valueOf(target.form().type().usage()),
                AddressMapCsv.hex(target.range().base()),
                AddressMapCsv.hex(target.range().last()),
                target.range().sizeBytes(),
                registers);
    }
}
