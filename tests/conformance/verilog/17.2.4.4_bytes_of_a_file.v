// IEEE 1364-2005 clause 17.2.4.4: into a variable, and into the elements of a memory from an address on
module t;
  integer f, n;
  reg [7:0] m [0:5];
  reg [23:0] w;
  initial begin
    f = $fopen("d.txt", "w");
    $fwrite(f, "ABCDEFG");
    $fclose(f);
    f = $fopen("d.txt", "r");
    n = $fread(w, f);
    $display("%0d %h", n, w);
    n = $fread(m, f, 2, 3);
    $display("%0d %h %h %h %h", n, m[1], m[2], m[4], m[5]);
    n = $fread(w, f);
    $display("%0d %h", n, w);
  end
endmodule
//> 3 414243
//> 3 xx 44 46 xx
//> 1 470000
