-- IEEE 1076-1993 clauses 8.1 and 14.1, 1164 clause 4.3.7: edges as people write them, a state machine, a memory
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity clocked is end entity;
architecture test of clocked is
  type state_t is (idle, run, halt);
  type mem_t is array (0 to 3) of std_logic_vector(7 downto 0);
  signal state, following : state_t;
  signal mem : mem_t := (others => x"00");
  signal clk, a : std_logic := '0';
  signal n : unsigned(3 downto 0) := (others => '0');
  signal q1, q2 : std_logic;
  shared variable edges : integer := 0;
begin
  clk <= not clk after 5 ns when now < 62 ns else '0';
  a <= '1' after 3 ns, '0' after 23 ns;
  process (clk) begin
    if clk'event and clk = '1' then
      state <= following;
      n <= n + 1;
      mem(to_integer(n(1 downto 0))) <= std_logic_vector(resize(n, 8));
      q1 <= a;
      q2 <= q1;
      edges := edges + 1;
    end if;
  end process;
  process (all) begin
    following <= state;
    case state is
      when idle => if a = '1' then following <= run; end if;
      when run => if not a then following <= halt; end if;
      when halt => null;
    end case;
  end process;
  process begin
    for i in 1 to 5 loop
      wait until falling_edge(clk);
      report state_t'image(state) & " " & to_string(n) & " " & std_logic'image(q1) & std_logic'image(q2);
    end loop;
    report to_hstring(mem(3)) & " " & to_hstring(mem(0)) & " " & integer'image(edges);
    wait;
  end process;
end architecture;
--> note: run 0001 '1''U'
--> note: run 0010 '1''1'
--> note: halt 0011 '0''1'
--> note: halt 0100 '0''0'
--> note: halt 0101 '0''0'
--> note: 03 04 5
