package polymetron.output.hardware;

import java.util.Set;

/** Words that no name of Verilog, SystemVerilog or VHDL can be (IEEE 1364-2005 and 1800-2017, annex B; IEEE 1076-2008, 15.10;
 * from memory). */
public final class Keywords {
    private static final Set<String> ALL =
            Set.of(
                    ("abs access after alias all always and architecture array assert assign assume"
                         + " attribute automatic begin block body buf buffer bufif0 bufif1 bus case"
                         + " casex casez cell cmos component config configuration constant context"
                         + " cover deassign default defparam design disable disconnect downto edge"
                         + " else elsif end endcase endconfig endfunction endgenerate endmodule"
                         + " endprimitive endspecify endtable endtask entity event exit fairness"
                         + " file for force forever fork function generate generic genvar group"
                         + " guarded highz0 highz1 if ifnone impure in incdir include inertial"
                         + " initial inout input instance integer is join label large liblist"
                         + " library linkage literal localparam loop macromodule map medium mod"
                         + " module nand negedge new next nmos nor noshowcancelled not notif0"
                         + " notif1 null of on open or others out output package parameter pmos"
                         + " port posedge postponed primitive procedure process property protected"
                         + " pull0 pull1 pulldown pullup pulsestyle_ondetect pulsestyle_onevent"
                         + " pure range rcmos real realtime record reg register reject release rem"
                         + " repeat report restrict return rnmos rol ror rpmos rtran rtranif0"
                         + " rtranif1 scalared select sequence severity shared showcancelled signal"
                         + " signed sla sll small specify specparam sra srl strong strong0 strong1"
                         + " subtype supply0 supply1 table task then time to tran tranif0 tranif1"
                         + " transport tri tri0 tri1 triand trior trireg type unaffected units"
                         + " unsigned until use variable vectored vmode vprop vunit wait wand weak0"
                         + " weak1 when while wire with wor xnor xor")
                            .split(" "));

    private static final Set<String> OF_SYSTEM_VERILOG =
            Set.of(
                    ("accept_on always_comb always_ff always_latch before bind bins binsof bit"
                         + " break byte chandle checker class clocking const constraint continue"
                         + " covergroup coverpoint cross dist do endchecker endclass endclocking"
                         + " endgroup endinterface endpackage endprogram endproperty endsequence"
                         + " enum eventually expect export extends extern final first_match foreach"
                         + " forkjoin global iff ignore_bins illegal_bins implements implies import"
                         + " inside int interconnect interface intersect join_any join_none let"
                         + " local logic longint matches modport nettype nexttime packed priority"
                         + " program rand randc randcase randsequence ref reject_on s_always"
                         + " s_eventually s_nexttime s_until s_until_with shortint shortreal soft"
                         + " solve static string struct super sync_accept_on sync_reject_on tagged"
                         + " this throughout timeprecision timeunit typedef union unique unique0"
                         + " until_with untyped uwire var virtual void wait_order weak wildcard"
                         + " within")
                            .split(" "));

    private Keywords() {}

    /** Whether a name in lower case is a word of a language. */
    public static boolean isKeyword(String name) {
        return ALL.contains(name) || OF_SYSTEM_VERILOG.contains(name);
    }

    /** Whether it is a word of SystemVerilog, and can be a name in Verilog. */
    public static boolean isOfSystemVerilog(String name) {
        return OF_SYSTEM_VERILOG.contains(name);
    }
}
