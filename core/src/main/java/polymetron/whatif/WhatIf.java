package polymetron.whatif;

import polymetron.edit.Edit;
import polymetron.edit.Editor;
import polymetron.elaborate.ElaboratedPlatform;
import polymetron.elaborate.Elaborator;

/** A platform as it would be after an edit, for plans and fixes that look before they are offered. */
public final class WhatIf {
    private WhatIf() {}

    /**
     * @throws polymetron.edit.RejectedEdit when the edit makes no sense
     */
    public static ElaboratedPlatform after(ElaboratedPlatform platform, Edit edit) {
        return new Elaborator(platform.library())
                .elaborate(new Editor(platform.library()).apply(platform.platform(), edit));
    }
}
