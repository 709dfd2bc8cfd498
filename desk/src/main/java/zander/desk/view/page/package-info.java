/** The page of a site beside its file. */
@NullMarked
package zander.desk.view.page;

import org.jspecify.annotations.NullMarked;
