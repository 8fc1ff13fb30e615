// IEEE 1800-2017 clause 21.2.1: `$write` ends no line, `$display` does; without a format decimals follow
module t;
  logic [3:0] a = 9;
  int n = -1;
  initial begin
    $write("a=");
    $write("%0d", a);
    $display(";");
    $displayh(a, "|", 8'hff);
    $displayb(a);
    $display("%0d", n, " ", "tail");
    $display("100%%\t|\"quoted\"");
  end
endmodule
//> a=9;
//> 9|ff
//> 1001
//> -1 tail
//> 100%	|"quoted"
