-- IEEE 1076-1993 clause 8.2 exit 1: assertions and reports by severity; failure ends the run
entity severities is end entity;
architecture test of severities is
  signal n : integer := 0;
begin
  assert n < 2 report "n is " & integer'image(n) severity warning;
  process begin
    assert true report "never";
    assert false;
    assert false report "plain";
    report "told";
    report "loud" severity error;
    n <= 2;
    wait for 1 ns;
    assert n = 0 report "the end" severity failure;
    report "not any more";
    wait;
  end process;
end architecture;
--> error: Assertion violation.
--> error: plain
--> note: told
--> error: loud
--> warning: n is 2
--> failure: the end
