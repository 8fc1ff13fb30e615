-- IEEE 1076-1993 clause 14.1: event, last_value, last_event, stable, active, transaction
entity t is end;
architecture r of t is
  signal s : integer := 1;
begin
  s <= 2 after 2 ns, 2 after 4 ns, 5 after 6 ns;
  process begin
    wait on s'transaction; report integer'image(s) & boolean'image(s'event) & integer'image(s'last_value);
    wait on s'transaction; report integer'image(s) & boolean'image(s'event) & boolean'image(s'active);
    wait for 1 ns; report boolean'image(s'stable(2 ns)) & boolean'image(s'stable(4 ns)) & time'image(s'last_event);
    wait;
  end process;
end;
--> note: 2true1
--> note: 2falsetrue
--> note: truefalse3000000 fs
