-- IEEE 1076-1993 clause 8.4: inertial delay swallows short pulses, transport keeps them, reject sets the limit
entity inertial_transport is end entity;
architecture test of inertial_transport is
  signal s, i, t, r : bit := '0';
begin
  i <= s after 5 ns;
  t <= transport s after 5 ns;
  r <= reject 1 ns inertial s after 5 ns;
  process begin
    s <= '1' after 10 ns, '0' after 12 ns, '1' after 30 ns;
    wait;
  end process;
  process (i) begin
    if now > 0 ns then report "i " & bit'image(i) & " " & integer'image(now / 1 ns); end if;
  end process;
  process (t) begin
    if now > 0 ns then report "t " & bit'image(t) & " " & integer'image(now / 1 ns); end if;
  end process;
  process (r) begin
    if now > 0 ns then report "r " & bit'image(r) & " " & integer'image(now / 1 ns); end if;
  end process;
end architecture;
--> note: t '1' 15
--> note: r '1' 15
--> note: t '0' 17
--> note: r '0' 17
--> note: i '1' 35
--> note: t '1' 35
--> note: r '1' 35
