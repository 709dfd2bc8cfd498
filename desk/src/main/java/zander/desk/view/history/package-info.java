/** The journal and recovery as sheets. */
@NullMarked
package zander.desk.view.history;

import org.jspecify.annotations.NullMarked;
