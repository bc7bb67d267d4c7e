package polymetron.output.software;

import polymetron.address.Address;
import polymetron.elaborate.AddressSpace;
import polymetron.elaborate.TargetRange;
import polymetron.output.Exporter;
import polymetron.output.HandoffFile;
import polymetron.output.HandoffNames;
import polymetron.software.SoftwareView;
import polymetron.text.Csv;
import polymetron.text.TextWriter;

/** The address map of every initiator as a table (RFC 4180, with line feeds). */
final class AddressMapCsv implements Exporter {
    @Override
    public HandoffFile export(SoftwareView view, HandoffNames names) {
        TextWriter out = TextWriter.indentedBy("");
        out.line("fingerprint,initiator,block,interface,base,last,size_bytes,usage,type");
        for (AddressSpace space : view.platform().spaces()) {
            for (TargetRange target : space.ranges()) {
                out.line(
                        Csv.row(
                                names.fingerprint(),
                                space.initiator().ref(),
                                target.block().name(),
                                target.form().name(),
                                hex(target.range().base()),
                                hex(target.range().last()),
                                Long.toUnsignedString(target.range().sizeBytes()),
                                target.form().type().usage(),
                                target.block().type().identity()));
            }
        }
        return new HandoffFile(names.of("_map.csv"), "address map, table", out.text());
    }

    static String hex(long address) {
        return Address.format(address).replace("_", "");
    }
}
