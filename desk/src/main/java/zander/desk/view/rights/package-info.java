/** The panel for owners and modes. */
package zander.desk.view.rights;
