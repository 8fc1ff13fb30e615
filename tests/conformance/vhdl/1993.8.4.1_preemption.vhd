-- IEEE 1076-1993 clause 8.4.1: a new transaction deletes those at and after its time; equal ones before it are kept
entity preemption is end entity;
architecture test of preemption is
  signal a, b, c : integer := 0;
begin
  process begin
    a <= 1 after 10 ns, 2 after 20 ns;
    a <= 3 after 15 ns;
    b <= transport 1 after 10 ns, 2 after 20 ns;
    b <= transport 3 after 15 ns;
    c <= 7 after 10 ns;
    c <= 7 after 15 ns;
    wait;
  end process;
  process (a) begin if now > 0 ns then report "a=" & integer'image(a) & " " & integer'image(now / 1 ns); end if; end process;
  process (b) begin if now > 0 ns then report "b=" & integer'image(b) & " " & integer'image(now / 1 ns); end if; end process;
  process (c) begin if now > 0 ns then report "c=" & integer'image(c) & " " & integer'image(now / 1 ns); end if; end process;
end architecture;
--> note: b=1 10
--> note: c=7 10
--> note: a=3 15
--> note: b=3 15
