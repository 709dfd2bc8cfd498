/** What several views are made of. */
@NullMarked
package zander.desk.view.part;

import org.jspecify.annotations.NullMarked;
