/** A folder sheet, the folder on this computer, and the panel beside them. */
@NullMarked
package zander.desk.view.folder;

import org.jspecify.annotations.NullMarked;
