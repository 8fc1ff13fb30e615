// IEEE 1800-2017 clause 3.12.1: they are seen everywhere below
localparam int N = 3;
typedef logic [N:0] nibble_t;
function automatic int more(int a);
  return a + N;
endfunction
module t;
  nibble_t a;
  initial begin
    a = more(9);
    $display("%0d %0d %0d", a, $bits(a), $unit::more(1));
  end
endmodule
//> 12 4 4
