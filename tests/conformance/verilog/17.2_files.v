// IEEE 1364-2005 clause 17.2: files, channels, reading back
module t;
  integer f, g, c, n, a, b; reg [8*20:1] line; reg [7:0] h; real x;
  initial begin
    f = $fopen("a.txt", "w"); $fdisplay(f, "12 ff word"); $fwrite(f, "line %0d\n", 2); $fdisplayh(f, 8'd16); $fstrobe(f, "strobed"); #1 $fclose(f);
    f = $fopen("a.txt", "r"); n = $fscanf(f, "%d %h %s", a, h, line); $display("%0d: %0d %0h %0s", n, a, h, line);
    c = $fgetc(f); n = $fgets(line, f); $display("%0d %0d [%0s]", c, n, line); n = $fgets(line, f); $write("%0s", line); n = $fgets(line, f); $write("%0s", line);
    $display("%0d", $feof(f)); c = $fgetc(f); $display("%0d %0d", c, $feof(f)); $fclose(f);
    f = $fopen("missing.txt", "r"); $display("%0d", f);
    f = $fopen("m1"); g = $fopen("m2"); $fdisplay(f | g | 1, "both"); $display("%0d %0d", f, g); $fclose(f | g);
    n = $sscanf("x=3.5 b=101", "x=%f b=%b", x, b); $display("%0d %g %0d", n, x, b); $sformat(line, "<%0d>", 42); $display("%0s", line);
    $fdisplay(32'h80000001, "stdout"); n = $sscanf("zz", "%d", a); $display("%0d", n);
  end
endmodule
//> 3: 12 ff word
//> 10 7 [line 2
//> ]
//> 10
//> strobed
//> 0
//> -1 1
//> 0
//> both
//> 2 4
//> 2 3.5 5
//> <42>
//> stdout
//> 1
