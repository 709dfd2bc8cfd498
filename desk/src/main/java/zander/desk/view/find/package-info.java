/** Finding as a sheet. */
@NullMarked
package zander.desk.view.find;

import org.jspecify.annotations.NullMarked;
