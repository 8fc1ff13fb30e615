-- IEEE 1076-1993 clause 14.1: in the cycle in which it changed
entity t is end;
architecture a of t is
  signal s : integer := 1;
begin
  s <= 5 after 2 ns;
  process begin
    wait on s;
    report boolean'image(s'event) & integer'image(s'last_value);
    wait for 1 ns;
    report boolean'image(s'event);
    wait;
  end process;
end;
--> note: true1
--> note: false
