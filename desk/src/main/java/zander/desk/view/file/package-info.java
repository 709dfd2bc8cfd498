/** Files as sheets. */
@NullMarked
package zander.desk.view.file;

import org.jspecify.annotations.NullMarked;
