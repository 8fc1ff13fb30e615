// IEEE 1800-2017 clause 21.2.1.1: numbers in all bases, letters, and a percent sign
module t;
  initial begin
    $display("%d|%0d|%4d|%h|%o|%b|%c|%%", 8'd65, 8'd65, 8'd65, 8'd65, 8'd65, 8'd65, 8'd65);
    $display("%5s|%-5s|%0s", "ab", "ab", "ab");
    $display("%e|%f|%g", 1.5, 1.5, 1.5);
    $displayh(255); $displayb(4'd5); $displayo(8'd8);
    $write("a"); $writeh(8'd17); $write("\n");
  end
endmodule
//>  65|65|  65|41|101|01000001|A|%
//>    ab|ab   |ab
//> 1.500000e+00|1.500000|1.5
//> 000000ff
//> 0101
//> 010
//> a11
