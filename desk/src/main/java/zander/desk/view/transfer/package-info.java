/** The waterline, and the sheets for lists, plans and comparisons. */
@NullMarked
package zander.desk.view.transfer;

import org.jspecify.annotations.NullMarked;
