/** The panel for owners and modes. */
@NullMarked
package zander.desk.view.rights;

import org.jspecify.annotations.NullMarked;
