-- IEEE 1076-1993 clauses 2, 4, 8 and 9, 1164, 1076.3: a whole small system, read line by line when it was recorded
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity fifo is
  generic (DEPTH_LOG : positive := 2; WIDTH : positive := 8);
  port (clk, rst_n, wr, rd : in std_logic; din : in std_logic_vector(WIDTH - 1 downto 0);
        dout : out std_logic_vector(WIDTH - 1 downto 0); full, empty : out std_logic; level : out natural range 0 to 2**DEPTH_LOG);
end fifo;
architecture rtl of fifo is
  subtype word is std_logic_vector(WIDTH - 1 downto 0);
  type ram_t is array (0 to 2**DEPTH_LOG - 1) of word;
  signal ram : ram_t;
  signal wp, rp : unsigned(DEPTH_LOG downto 0);
  signal full_i, empty_i : boolean;
  function to_sl(b : boolean) return std_logic is begin if b then return '1'; else return '0'; end if; end;
begin
  full_i <= (wp(DEPTH_LOG) /= rp(DEPTH_LOG)) and (wp(DEPTH_LOG-1 downto 0) = rp(DEPTH_LOG-1 downto 0));
  empty_i <= wp = rp;
  full <= to_sl(full_i); empty <= to_sl(empty_i);
  level <= to_integer(wp - rp);
  process (clk, rst_n) begin
    if rst_n = '0' then
      wp <= (others => '0'); rp <= (others => '0');
    elsif rising_edge(clk) then
      if wr = '1' and not full_i then
        ram(to_integer(wp(DEPTH_LOG-1 downto 0))) <= din;
        wp <= wp + 1;
      end if;
      if rd = '1' and not empty_i then
        dout <= ram(to_integer(rp(DEPTH_LOG-1 downto 0)));
        rp <= rp + 1;
      end if;
    end if;
  end process;
end rtl;
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all; use std.env.finish;
entity tb3 is end;
architecture t of tb3 is
  signal clk, rst_n, wr, rd : std_logic := '0';
  signal din, dout : std_logic_vector(7 downto 0) := (others => '0');
  signal full, empty : std_logic; signal level : natural;
  shared variable seed : integer := 7;
  impure function rnd return integer is
  begin
    seed := (seed * 75 + 74) mod 65537;
    return seed;
  end function;
begin
  u : entity work.fifo generic map (DEPTH_LOG => 2, WIDTH => 8) port map (clk => clk, rst_n => rst_n, wr => wr, rd => rd, din => din, dout => dout, full => full, empty => empty, level => level);
  clk <= not clk after 5 ns;
  main : process
    procedure step(w, r : std_logic; d : integer := 0) is
    begin
      wr <= w; rd <= r; din <= std_logic_vector(to_unsigned(d, 8));
      wait until rising_edge(clk); wait for 1 ns;
      report "w=" & std_logic'image(w) & " r=" & std_logic'image(r) & " level=" & integer'image(level) & " dout=" & to_hstring(dout) & " " & std_logic'image(full) & std_logic'image(empty);
    end procedure;
  begin
    wait for 12 ns; rst_n <= '1';
    for i in 1 to 5 loop step('1', '0', 16#10# + i); end loop;
    step('1', '1', 99);
    for i in 1 to 4 loop step('0', '1'); end loop;
    report integer'image(rnd) & " " & integer'image(rnd);
    finish;
  end process;
end;
--> warning: NUMERIC_STD."=": metavalue detected, returning FALSE
--> warning: NUMERIC_STD.TO_INTEGER: metavalue detected, returning 0
--> note: w='1' r='0' level=1 dout=XX '0''0'
--> note: w='1' r='0' level=2 dout=XX '0''0'
--> note: w='1' r='0' level=3 dout=XX '0''0'
--> note: w='1' r='0' level=4 dout=XX '1''0'
--> note: w='1' r='0' level=4 dout=XX '1''0'
--> note: w='1' r='1' level=3 dout=11 '0''0'
--> note: w='0' r='1' level=2 dout=12 '0''0'
--> note: w='0' r='1' level=1 dout=13 '0''0'
--> note: w='0' r='1' level=0 dout=14 '0''1'
--> note: w='0' r='1' level=0 dout=14 '0''1'
--> note: 599 44999
